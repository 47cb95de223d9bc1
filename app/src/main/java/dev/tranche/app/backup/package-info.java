/**
 * The whole house as one file and back. A backup is a ZIP archive: a note of what it is, the rows of every table as lines of
 * JSON, and the files they name. It is read into a database of its own, brought to today's schema there, and only then taken
 * over, so that a file that is cut off or comes from elsewhere changes nothing.
 */
package dev.tranche.app.backup;
