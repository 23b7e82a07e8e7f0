/** Control characters of a serial line to a machine (ISO 646): start and stop sending, name a program to read or to give. */
export const XON = 0x11;
export const XOFF = 0x13;
/** Start of header: the name of a program that follows, up to the end of its line. */
export const SOH = 0x01;
/** Enquiry: the name of a program that is to be given back, up to the end of its line. */
export const ENQ = 0x05;
/** End of transmission: what was sent, or given back, is whole. */
export const EOT = 0x04;
/** Acknowledged; negative where it was not stored. */
export const ACK = 0x06;
export const NAK = 0x15;
export const LF = 0x0a;
