// Keys, pointing and dropping. What they mean for a print is the server's to say.
import "./web/page.js";
import "./web/queue.js";
import "./web/files.js";
import "./web/rows.js";
import "./desk/zones.js";
import "./desk/cursor.js";
import "./desk/section.js";
import "./desk/menus.js";
import "./plate/plate.js";
import "./piece/piece.js";
import "./printers/macro.js";
import "./run/rehearse.js";
import "./companion/companion.js";
