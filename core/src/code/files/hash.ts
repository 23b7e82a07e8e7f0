import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** SHA-256 (FIPS 180-4) of a text in UTF-8, hex: a file that is another by one letter has another. */
export const textHash = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));
