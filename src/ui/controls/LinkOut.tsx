'use client';

import { useState } from 'react';
import { BASE } from '@/loading/base';
import { remember, remembered } from '@/loading/page-memory';
import { copyText } from '@/session/page-clipboard';
import { lazyComponent } from './lazy-component';

const QrCode = lazyComponent('the QR code', () => import('./QrCode').then((m) => m.QrCode));

/** Many mail, chat and learning tools cut or refuse addresses that are longer. */
const LONGEST_LINK = 2000;
const ADDRESS_KEY = 'manege-address';

/** An address without what stands behind its host; null where it is none. */
function addressOf(text: string): string | null {
  try {
    const { protocol, origin } = new URL(text.trim());
    return protocol === 'http:' || protocol === 'https:' ? origin : null;
  } catch {
    return null;
  }
}

/** Whether an address leads to the computer on which it is opened. */
const isOwnComputer = (address: string): boolean =>
  /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/.test(new URL(address).hostname);

interface Props {
  readonly name: string;
  /** Behind the host: `/exercise#1.eJx…`. */
  readonly path: string;
  /** What to do where the link is too long for mail and chat. */
  readonly instead: string;
  /** What is copied for a link, where that is more than the link. */
  readonly wrap?: (link: string) => string;
}

/** A link to be copied or shown as a QR code, with the address under which others find this page. */
export function LinkOut({ name, path, instead, wrap }: Props) {
  const [address, setAddress] = useState(() => remembered(ADDRESS_KEY) ?? '');
  const [copied, setCopied] = useState('');
  const [isCode, setCode] = useState(false);
  const base = (addressOf(address) ?? location.origin) + BASE;
  const link = `${base}${path}`;
  const text = wrap ? wrap(link) : link;
  const isLong = link.length > LONGEST_LINK && !wrap;
  return (
    <>
      {isLong && (
        <p role="alert" className="text-sm text-bad">
          The link has {link.length.toLocaleString('en')} characters; many mail, chat and learning tools cut
          links at {LONGEST_LINK.toLocaleString('en')}. {instead}
        </p>
      )}
      <textarea
        readOnly
        className="field h-20 resize-none py-1.5 font-mono text-xs break-all"
        value={text}
        aria-label={name}
        onFocus={(event) => event.target.select()}
      />
      <Address
        base={base}
        address={address}
        onAddress={(typed) => {
          setAddress(typed);
          remember(ADDRESS_KEY, typed);
        }}
      />
      <div className="flex items-center gap-3">
        <button
          type="button"
          className="button"
          onClick={() =>
            copyText(text).then((isTaken) =>
              setCopied(
                isTaken ? 'Copied.' : 'This browser does not let pages copy: select it and copy it by hand.',
              ),
            )
          }
        >
          {wrap ? 'Copy the text' : 'Copy the link'}
        </button>
        {!wrap && 'share' in navigator && (
          <button
            type="button"
            className="button"
            // Whoever closes the sheet of the system has changed nothing.
            onClick={() => void navigator.share({ url: link }).catch(() => {})}
          >
            Share …
          </button>
        )}
        {!isLong && !wrap && (
          <button type="button" className="button" aria-expanded={isCode} onClick={() => setCode(!isCode)}>
            QR code
          </button>
        )}
        <span className="text-sm text-quiet" role="status">
          {copied || `${text.length.toLocaleString('en')} characters`}
        </span>
      </div>
      {isCode && !isLong && !wrap && <QrCode text={link} />}
    </>
  );
}

interface AddressProps {
  readonly base: string;
  readonly address: string;
  readonly onAddress: (text: string) => void;
}

/** The address under which students find Manege: to be set once where this page is served to this computer alone. */
function Address({ base, address, onAddress }: AddressProps) {
  const isOwn = isOwnComputer(base);
  if (!isOwn && !address) return null;
  return (
    <label className="flex flex-col gap-1 text-sm">
      {isOwn ? (
        <span className="text-bad">
          This link works on this computer only. Write the address under which your students open Manege; it
          is remembered.
        </span>
      ) : (
        <span>The address under which your students open Manege</span>
      )}
      <input
        className="field max-w-96"
        value={address}
        placeholder="such as http://room12.school:3000"
        onChange={(event) => onAddress(event.target.value)}
      />
      {address.trim() !== '' && addressOf(address) === null && (
        <span role="alert" className="text-bad">
          An address begins with http:// or https://.
        </span>
      )}
    </label>
  );
}
