/**
 * What lessons have in common, for the compression of links (RFC 1950, 8): the most frequent last. It is part of the format of
 * links that begin with `1.` and never changes; a better one would get a number of its own.
 */
export const DICTIONARY_1 =
  '"chips":{"family":"board":{"columns":63,"packages":[],"switches":[],"lamps":[],"stimuli":[{"name":"inputs":[{"part":"wave":' +
  '"expected":"driven":"lanes":[{"of":["radix":"stairs":"height":"hidden":[],"states":"time":{"plan":{"outputs":[{"name":' +
  '"rows":"exercise":null"sheets":[{"id":"sheet1","name":"Sheet 1","parts":[{"format":"manege-lesson","version":4,"id":' +
  '"title":"settings":{"symbols":"distinctive","powerUp":"0","crossings":"plain","buses":"hexadecimal","delays":"zero",' +
  '"terms":"written"}"rectangular""unsigned""binary""signed""shared""bridge""parts""unit""sequence""threshold""interval"' +
  '"faces":["table","formula","map","time","states","chips","bench","text"],"replay":[[0,"held":{"begun":[' +
  '"mirrored":true,"colour":"amber""blue""drawn":true,"fault":"cut""symbols":"rank":1,"rank":2,"rank":3,"rank":4,' +
  '"params":{"sheet":"title":"inputs":"A B""outputs":"Y""params":{"width":8"params":{"width":4,"params":{"inputs":3' +
  '"params":{"edge":"falling""params":{"edge":"rising""clear":"low""preset":"high""enable":"yes""delayRise":0,"delayFall":0,' +
  '"setup":0,"hold":0,"powerUp":"lesson""params":{"period":100000,"duty":50,"key":"modulus":10,"kind":"subtractor"' +
  '"kind":"comparator""kind":"adder""kind":"decoder""kind":"encoder""kind":"mux""kind":"demux""kind":"shift""kind":"counter"' +
  '"kind":"register""kind":"srlatch""kind":"dlatch""kind":"tff""kind":"jkff""kind":"dff""kind":"memory""kind":"block"' +
  '"kind":"port""direction":"in""out""kind":"tri""kind":"pull""kind":"slice""kind":"join""kind":"tunnel""kind":"constant"' +
  '"kind":"digits""kind":"segments""kind":"probe""kind":"note""text":"kind":"button""kind":"clock""kind":"buffer","kind":"xnor"' +
  '"kind":"xor""kind":"nor""kind":"nand","kind":"not","kind":"or","kind":"and","kind":"lamp","kind":"switch",' +
  '{"wire":"w1","at":{"x":"label":"S","label":"R","label":"Q","label":"D","label":"C","label":"B","label":"A",' +
  '"port":"CLR"},"port":"EN"},"port":"Q"},"port":"D"},"port":"C"},"port":"B"},"port":"A"}},{"id":"jkff1"{"id":"dff1"' +
  '{"id":"clock1"{"id":"port1"{"id":"xor1"{"id":"nand1"{"id":"not1"{"id":"or1"{"id":"and1"{"id":"lamp1"{"id":"switch1"' +
  '{"part":"dff1","port":"Q"},{"part":"xor1","port":"Y"},{"part":"or1","port":"Y"},{"part":"not1","port":"Y"},' +
  '{"part":"switch2","port":"Y"},{"part":"lamp1","port":"A"},"course":[]}],"wires":[{"id":"w1","from":' +
  '"kind":"and","at":{"x":12,"y":8},"turn":0,"label":"","rank":0,"params":{}},{"id":"' +
  '"from":{"part":"and1","port":"Y"},"to":{"part":"and1","port":"B"},"course":[{"x":10,"y":6},{"x":16,"y":10}]},{"id":"w2",';
