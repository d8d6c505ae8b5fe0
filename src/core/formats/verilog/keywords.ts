/** Gates that are built into the language, and the pulls (IEEE Std 1364-2005, clause 7). */
export const GATES: ReadonlySet<string> = new Set(
  'and nand or nor xor xnor buf not bufif0 bufif1 notif0 notif1 pullup pulldown'.split(' '),
);

/** Words of the language that are no names, whether or not they are supported (IEEE Std 1364-2005, annex B). */
export const KEYWORDS: ReadonlySet<string> = new Set(
  (
    'always and assign automatic begin buf bufif0 bufif1 case casex casez cmos deassign default ' +
    'defparam disable edge else end endcase endfunction endgenerate endmodule endprimitive ' +
    'endspecify endtable endtask event for force forever fork function generate genvar if initial ' +
    'inout input integer join large localparam medium module nand negedge nmos nor not notif0 notif1 ' +
    'or output parameter pmos posedge primitive pull0 pull1 pulldown pullup real realtime reg ' +
    'release repeat scalared signed small specify strong0 strong1 supply0 supply1 table task time ' +
    'tran tri tri0 tri1 triand trior trireg unsigned vectored wait wand weak0 weak1 while wire wor ' +
    'xnor xor'
  ).split(' '),
);
