/** All plans as cards: begun, copied, renamed, put away and brought back. */
package dev.tranche.app.library;
