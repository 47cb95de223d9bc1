/** What is kept of rehearsals: of which edition of a plan and of its printer the last one was, and how it ended. */
package dev.tranche.app.rehearsed;
