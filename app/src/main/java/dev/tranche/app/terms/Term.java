package dev.tranche.app.terms;

import dev.tranche.core.speech.Refusal;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** A word that somebody may not know, and what it means in the workshop's. Pages name it by its {@link #key}. */
public enum Term {
    ABILITY(
            "Abilities",
            "Commands, with their parameters, that the firmware of your printer understands. Tranche writes none that is not ticked."),
    BAND(
            "Bands",
            "Each colour is printed several layers high before the next takes its turn, as deep as the nozzle can dip beside what stands. Many swaps become few."),
    BLEND(
            "Blends and fades",
            "A nozzle with several inputs prints a mixture of what feeds it: a blend stays the same, a fade goes from one blend to another over heights. Neither needs a swap."),
    CELL(
            "What a pair needs",
            "Millimetres of filament to push until the colour of the row is gone from the colour of the column. A large drop is a long purge; light after dark needs most."),
    CLEAN(
            "Clean",
            "How far the new colour may be from pure before you call it clean, as a colour difference (CIEDE2000): 1 is what a trained eye sees, 2 is usual, 5 shows at a glance."),
    COPIES("Copies", "How many stand on the plate. A swap serves all of them at once, so the waste of each goes down."),
    COVER_DEPTH(
            "Hides at",
            "How thick a layer of this spool has to be for what lies beneath not to show. The stack coupon measures it; above 5 mm it counts as clear."),
    DEAD_VOLUME(
            "Dead volume",
            "Melt between the gears' end and the tip of the nozzle that cannot simply be pushed out: it mixes with what follows, and has to be diluted away. It sets every purge."),
    DRY_RUN(
            "Dry run",
            "The macro's G-code interpreted as a firmware would: where the nozzle goes, how long it takes, what goes in and out, what would go wrong. Nothing moves."),
    EVENT(
            "Events",
            "What makes a macro run: a change of spool, a halt, the load before the first layer. One event may run several macros, in their order."),
    FACTOR("Factor", "Every computed purge times this. Take more than 1 if colours still bleed, less if you waste."),
    FILLING(
            "How the model is filled",
            "Walls, solid layers and infill, as you slice. Time and plastic are estimated with them until there is a sliced file; swaps do not depend on them."),
    FINDING(
            "Findings",
            "What Tranche found when it looked the plan over. A stop will fail, a warning may, a note is good to know. Those that can be mended have a button."),
    FIT(
            "Layers that fit",
            "Pairs of first and other layer height with which your colours start on a layer border, or nearly; the best first, and only such as your nozzle prints."),
    GEARS(
            "Gears to nozzle",
            "How much filament lies between the driving gears and the tip: so much has to be pulled out, and pushed in again, at a swap."),
    HALT("Halts", "A stop without a change of spool, to lay something in: a nut, a magnet, a sheet of paper."),
    HEATER_LIMIT(
            "Stays hot",
            "After so many minutes of waiting the firmware turns the heater off, to be safe. A swap that waits longer ruins the print."),
    HOST_PAUSES(
            "Host pauses",
            "Where a computer feeds the printer, it may catch this command itself, and run its own script, instead of passing it on."),
    INLAY(
            "Face-down inlay",
            "An outline laid into the first layers, mirrored, since the underside becomes the face. It comes out as smooth as the bed."),
    JOB(
            "Jobs",
            "One print cut into files that each start by themselves. Between them the machine is free, and the part stays on the bed."),
    LAYER(
            "Layers",
            "Layers are numbered from 1, the one on the bed. Programs that count from 0 show one less; both stand here. The first layer often has a height of its own."),
    LEDGER(
            "Ledger",
            "What the plan takes in all: swaps, purge, waste, time, money. Each figure opens to how it was computed."),
    MACRO(
            "Macros",
            "The steps that carry a swap out, and the G-code they become. They run at events, such as a change of spool."),
    NUMBERING(
            "By number",
            "On each layer the loaded colour first, then the rest by their extruders' numbers, as most slicing programs print. Another numbering can save swaps, and costs nothing."),
    OFFSET(
            "Offset and nozzle",
            "There is one nozzle, so every virtual extruder has the same nozzle and filament, and no offset. Where they differ, slicing programs shift or thin what they print."),
    ORDER(
            "Order",
            "In which order the colours of one layer are printed. What is loaded at the end of one layer begins the next, so a good order saves swaps."),
    PACE(
            "Time, ×",
            "How many times as long the machine prints as is reckoned from the model, or from the motion of a sliced file: 1.1 is a tenth longer. A print that you told of at its stops measures it; its page takes that over with one press."),
    PARK_SPOT(
            "Park spot",
            "Where the nozzle waits during a swap: best beside the bed's middle, where nothing is printed and you can reach it."),
    PART(
            "Parts",
            "Solids of the model, as their file holds them. A part may have a colour of its own, whatever the heights say."),
    PLAN_FILE(
            "Plan file",
            "The whole plan in one open file: model, spools, printer, colours. Another Tranche opens it as it is."),
    PLATE_GAP("Apart", "How far copies stand from each other."),
    RIMS(
            "Brim and skirt",
            "A brim is a flat rim round each copy that holds it down; a skirt is a line round all of them that primes the nozzle. Your slicing program draws both on the first layer; Tranche leaves them room."),
    PURGE(
            "Purge",
            "Filament pushed through the nozzle after a change, until the last colour is gone. It is thrown away, or goes into a tower."),
    QUIET(
            "Quiet times",
            "When nobody is at the machine. The clock marks the swaps that would come then, and looks for a start that avoids them."),
    RAFT(
            "Raft",
            "A base that your slicing program puts beneath the model. The model's layers stand that much higher in the file."),
    REACH(
            "Reach beside plastic",
            "How deep the tip can dip beside something that stands without the heater block hitting it. It says how high bands can be."),
    REGION(
            "Regions",
            "A part, a drawn zone, or what is traced of a sliced file or a painted model, with a colour of its own over a range of heights. It lies over the colours by height; in the list the upper one wins."),
    REHEARSAL(
            "Rehearsal",
            "The very file, run on a simulated printer with the abilities of yours. It stops where yours will stop, and what comes out is laid beside the plan."),
    SCORE(
            "Score",
            "The print as time goes by, one line a spool. A bar is plastic of that spool, a drop the purge before it, as large as its area."),
    SECTION(
            "Section",
            "The model cut upright, so that you see at which height something begins. Heights are drawn larger than widths unless you press the figure beside it."),
    SHRINK(
            "First layer drawn in",
            "Slicing programs draw the first layer in a little, since it is squeezed and spreads. Give what yours does, so that outlines agree."),
    SLICED_FILE(
            "Sliced file",
            "The G-code that your slicing program wrote, in one colour or with a tool for each. Its layers are laid beside the plan's, one for one."),
    SNAP(
            "Start of a colour",
            "A colour starts with the layer whose middle is the first above the height you gave. Beside it stands by how much that is off."),
    STANDBY(
            "Standby and lift",
            "The temperature at which the nozzle waits, and by how much it lifts when it retracts. Left empty, the spool's and the macro's hold."),
    SWAP(
            "Swaps",
            "The nozzle goes from one spool to another during the print. The load before the first layer is none."),
    TEXTS(
            "Texts for its boxes",
            "Many slicing programs run lines of your own at a change of tools or before a layer. These are the plan's stops as such lines."),
    TOOL(
            "Tools",
            "What the file calls T0, T1 and so on. Each stands for one of your spools; Tranche proposes which, and you can say otherwise."),
    TOWER(
            "Tower",
            "A block printed beside the model that takes what is purged. It has to be as high as the highest layer with a swap."),
    VARIANT(
            "Variants",
            "The same plan otherwise: other layers, order, purge or printer, with its figures beside the first. One is adopted, the others go."),
    VIRTUAL_EXTRUDER(
            "Virtual extruders",
            "Several names, T0, T1 and on, for the one nozzle, so that a slicing program can give each colour a tool. Each has its spool."),
    WAY_BACK(
            "Ways back",
            "Where the nozzle goes from its waiting place to the first plastic of the new colour. Over plastic of another colour it may drag a thread.");

    private final String title;
    private final String meaning;

    Term(String title, String meaning) {
        this.title = title;
        this.meaning = meaning;
    }

    public String title() {
        return title;
    }

    public String meaning() {
        return meaning;
    }

    /** As addresses and templates name it. */
    public String key() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** All, by title. */
    static List<Term> sorted() {
        return Arrays.stream(values())
                .sorted((a, b) -> a.title.compareTo(b.title))
                .toList();
    }

    /** @throws Refusal if there is none */
    static Term at(String key) {
        return Arrays.stream(values())
                .filter(t -> t.key().equals(key))
                .findFirst()
                .orElseThrow(() -> new Refusal("That word is not explained here; the list of all words may have it."));
    }
}
