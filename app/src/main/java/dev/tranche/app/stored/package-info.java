/**
 * How plans and printers are stored, in the database and in plan files: records of their own, field for field what the JSON
 * says, apart from the core's values, so that those may change. A record here changes only so that what was stored before
 * still reads: a new field is an {@code Optional}, a changed one gets a new name. {@code of} takes a value of the core, the
 * other method gives it back, and what the value refuses is refused.
 */
package dev.tranche.app.stored;
