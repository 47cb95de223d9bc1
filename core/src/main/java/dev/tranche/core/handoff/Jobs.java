package dev.tranche.core.handoff;

import dev.tranche.core.estimate.Ledger;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.estimate.Turn;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GridMatch;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.gcode.SlicedFile.Span;
import dev.tranche.core.gcode.SlicedLayer.Door;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.Joint;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.sequence.Pass;
import dev.tranche.core.sequence.PrintOrder;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;

/**
 * A print cut at heights into jobs: files of their own, each of which starts as the whole does, prints a run of layers with its
 * swaps, and ends as the whole does. Nothing is lost between them, and nothing is printed twice.
 */
public final class Jobs {
    /** Between two jobs, mm. */
    private static final double NEAR = 0.02;

    private final GridMatch match;
    private final Ledger ledger;
    private final SwapWriter writer;
    private final Patch patch;
    private final List<Door> seams;
    private final List<Job> list;

    /**
     * One of them.
     *
     * @param number from 1
     * @param first layer of it, from 1, and {@code last}
     * @param from mm above the bed at which it begins, the raft included, and {@code to} at which it ends
     * @param gap between the job before and this one, mm; below zero where they overlap
     * @param begins the spool it begins with, and {@code stays} whether the job before ended with it
     * @param swaps in it
     * @param seconds from its first plastic to its last
     */
    public record Job(
            int number,
            int first,
            int last,
            Height from,
            Height to,
            double gap,
            Spool begins,
            boolean stays,
            int swaps,
            double seconds) {}

    private Jobs(GridMatch match, Ledger ledger, SwapWriter writer, Patch patch, List<Door> seams, List<Job> list) {
        this.match = match;
        this.ledger = ledger;
        this.writer = writer;
        this.patch = patch;
        this.seams = List.copyOf(seams);
        this.list = List.copyOf(list);
    }

    /** From the bed up. */
    public List<Job> list() {
        return list;
    }

    /**
     * @param order in which the file prints
     * @param before layers, from 2, with which another job begins
     * @throws Refusal if the file cannot be cut there
     */
    public static Jobs of(
            GridMatch match,
            Ledger ledger,
            PrintOrder order,
            Map<SpoolId, Spool> shelf,
            StopTable stops,
            SwapWriter writer,
            Set<Integer> before) {
        if (match.file().numbered()) {
            throw new Refusal(
                    "The G-code numbers its lines, so it cannot be cut into jobs: a firmware stops where a number is left out. Slice it without line numbers.");
        }
        List<Integer> firsts = new ArrayList<>(List.of(1));
        List<Door> seams = new ArrayList<>();
        Set<Long> offsets = new HashSet<>();
        for (int layer : new TreeSet<>(before)) {
            Door seam = seam(match, layer);
            firsts.add(layer);
            seams.add(seam);
            offsets.add(seam.offset());
        }
        List<Job> list = new ArrayList<>();
        for (int i = 0; i < firsts.size(); i++) {
            int last = last(firsts, i, match.grid());
            long from = i == 0 ? 0 : seams.get(i - 1).offset();
            long to = i < seams.size() ? seams.get(i).offset() : Long.MAX_VALUE;
            list.add(job(match, ledger, order, shelf, new Range(i + 1, firsts.get(i), last, from, to)));
        }
        return new Jobs(match, ledger, writer, writer.patch(match, ledger, stops, offsets), seams, list);
    }

    /**
     * The jobs of a plan that is not sliced yet: as they will be, if each is sliced by itself.
     *
     * @param raft that lifts the print
     */
    public static List<Job> planned(
            LayerGrid grid,
            Height raft,
            Ledger ledger,
            PrintOrder order,
            Map<SpoolId, Spool> shelf,
            Set<Integer> before) {
        List<Integer> firsts = new ArrayList<>(List.of(1));
        for (int layer : new TreeSet<>(before)) {
            requireLayer(grid, layer);
            firsts.add(layer);
        }
        List<Job> list = new ArrayList<>();
        for (int i = 0; i < firsts.size(); i++) {
            int first = firsts.get(i);
            int last = last(firsts, i, grid);
            list.add(new Job(
                    i + 1,
                    first,
                    last,
                    first == 1 ? Height.ZERO : lifted(raft, grid.bottom(first)),
                    lifted(raft, grid.top(last)),
                    0,
                    begins(order, shelf, first),
                    stays(order, shelf, first),
                    (int) ledger.swaps().stream()
                            .filter(s -> !s.turns())
                            .filter(s -> s.layer() >= first && s.layer() <= last && (s.layer() > first || s.within()))
                            .count(),
                    seconds(ledger, first, last)));
        }
        return list;
    }

    private static int last(List<Integer> firsts, int job, LayerGrid grid) {
        return job + 1 < firsts.size() ? firsts.get(job + 1) - 1 : grid.count();
    }

    private static Height lifted(Height raft, Height height) {
        return Height.ofMicrometres(raft.micrometres() + height.micrometres());
    }

    private static Spool begins(PrintOrder order, Map<SpoolId, Spool> shelf, int first) {
        return shelf.get(order.passes().stream()
                .filter(p -> p.layer() >= first)
                .findFirst()
                .orElseThrow()
                .spool());
    }

    /** Whether what is printed before layer {@code first} ends with the spool that begins it. */
    private static boolean stays(PrintOrder order, Map<SpoolId, Spool> shelf, int first) {
        return order.passes().stream()
                .filter(p -> p.layer() < first)
                .reduce((a, b) -> b)
                .map(Pass::spool)
                .filter(begins(order, shelf, first).id()::equals)
                .isPresent();
    }

    private static double seconds(Ledger ledger, int first, int last) {
        double starts = Double.MAX_VALUE;
        double ends = 0;
        for (int layer = first; layer <= last; layer++) {
            starts = Math.min(starts, ledger.layers().begin(layer));
            ends = Math.max(ends, ledger.layers().end(layer));
        }
        return ends - starts;
    }

    private static void requireLayer(LayerGrid grid, int layer) {
        if (layer < 2 || layer > grid.count()) {
            throw Refusal.of("A job that begins with layer %d is none; give layers from 2 to %d.", layer, grid.count());
        }
    }

    private record Range(int number, int first, int last, long from, long to) {}

    private static Job job(GridMatch match, Ledger ledger, PrintOrder order, Map<SpoolId, Spool> shelf, Range r) {
        double gap = r.first() == 1 ? 0 : gap(match, r.first());
        if (Math.abs(gap) > NEAR) {
            throw Refusal.of(
                    "Between layers %d and %d the G-code leaves %.2f mm, so a job cannot begin there.",
                    r.first() - 1, r.first(), gap);
        }
        return new Job(
                r.number(),
                r.first(),
                r.last(),
                r.first() == 1 ? Height.ZERO : match.layer(r.first() - 1).z(),
                match.layer(r.last()).z(),
                gap,
                begins(order, shelf, r.first()),
                stays(order, shelf, r.first()),
                (int) ledger.swaps().stream()
                        .filter(s -> !s.turns() && isIn(s, r))
                        .count(),
                seconds(ledger, r.first(), r.last()));
    }

    private static boolean isIn(Swap swap, Range r) {
        return swap.door()
                .filter(d -> d.offset() > r.from() && d.offset() < r.to())
                .isPresent();
    }

    private static double gap(GridMatch match, int layer) {
        LayerGrid grid = match.grid();
        int bottom =
                match.layer(layer).z().micrometres() - grid.thickness(layer).micrometres();
        return (bottom - match.layer(layer - 1).z().micrometres()) / 1000.0;
    }

    private static Door seam(GridMatch match, int layer) {
        requireLayer(match.grid(), layer);
        List<GridMatch.Visit> visits = match.visits();
        int at = 0;
        while (visits.get(at).layer() < layer) {
            at++;
        }
        if (visits.subList(at, visits.size()).stream().anyMatch(v -> v.layer() < layer)) {
            throw Refusal.of(
                    "Layer %d is printed before all that lies beneath it, in a band or one object after another, so no job can begin with it; cut at another layer, or plan a halt there.",
                    layer);
        }
        return visits.get(at)
                .door(0)
                .orElseThrow(() -> Refusal.of(
                        "Layer %d of the G-code begins without a travel, so no job can begin with it; cut at another layer.",
                        layer));
    }

    /**
     * Writes one job.
     *
     * @param original bytes of the file from its beginning, as it is printed
     */
    public void copy(Job job, InputStream original, OutputStream out, Progress progress) throws IOException {
        SlicedFile file = match.file();
        boolean first = job.number() == 1;
        boolean last = job.number() == list.size();
        Span head = new Span(
                0,
                first
                        ? seams.isEmpty() ? file.size() : seams.get(0).offset()
                        : file.start().offset());
        patch.copy(original, head, out, progress);
        long at = head.to();
        if (!first) {
            Door seam = seams.get(job.number() - 2);
            say(out, mark(job, "begins", seam));
            begin(job, seam).forEach(line -> say(out, line + BlockStamp.ADDED));
            Span body = new Span(
                    seam.offset(),
                    last ? file.size() : seams.get(job.number() - 1).offset());
            original.skipNBytes(body.from() - at);
            patch.copy(original, body, out, progress);
            at = body.to();
        }
        if (!last) {
            Door seam = seams.get(job.number() - 1);
            say(out, mark(job, "ends", seam));
            end(job, seam).forEach(line -> say(out, line + BlockStamp.ADDED));
            original.skipNBytes(file.printedTo() - at);
            patch.copy(original, new Span(file.printedTo(), file.size()), out, progress);
        }
        out.flush();
    }

    /** Where in the whole file it is cut stands in both jobs, so that only these are joined again. */
    private String mark(Job job, String what, Door seam) {
        return BlockStamp.JOB + job.number() + " of " + list.size() + " " + what + " at byte " + seam.offset() + " of "
                + match.file().size();
    }

    private void say(OutputStream out, String line) {
        try {
            out.write((line + (match.file().crlf() ? "\r\n" : "\n")).getBytes(StandardCharsets.US_ASCII));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** From the start of the file to where the job goes on, with its spool loaded. */
    private List<String> begin(Job job, Door seam) {
        ControllerState start = match.file().start().state();
        List<String> lines = new ArrayList<>(blends(seam));
        lines.addAll(load(job, seam, start));
        double over = over(start, seam.state(), job.from());
        OptionalInt slot = slot(seam);
        ControllerState from = start;
        if (slot.isPresent()) {
            // Before anything is drawn back, so that it is that tool's.
            lines.addAll(new Joint(writer.rig().printer()).choose(start, slot.getAsInt(), over));
            from = start.at(over);
        }
        lines.addAll(way(from, seam.state(), over));
        return lines;
    }

    /** What a nozzle that blends has been told by then, as far as it still holds. */
    private List<String> blends(Door seam) {
        List<String> lines = new ArrayList<>();
        List<Turn> told = ledger.turns().stream()
                .filter(t -> t.isStart() || writer.door(t, match).offset() <= seam.offset())
                .toList();
        for (int i = 0; i < told.size(); i++) {
            lines.addAll(
                    i + 1 == told.size()
                            ? told.get(i).lines()
                            : i == 0 ? told.get(i).before() : List.of());
        }
        return lines;
    }

    /** What the swap at the seam would load, by the macro of the first load, if the printer has one. */
    private List<String> load(Job job, Door seam, ControllerState start) {
        if (ledger.firstLoad().isEmpty()) {
            return List.of();
        }
        return ledger.swaps().stream()
                .filter(s -> s.door().filter(d -> d.offset() == seam.offset()).isPresent())
                .findFirst()
                .map(Swap::moment)
                .map(m -> new Moment(
                                1,
                                1,
                                job.first(),
                                "",
                                m.in(),
                                0,
                                m.temperatureIn(),
                                m.standby(),
                                m.purge(),
                                m.extruder(),
                                "",
                                start)
                        .beside(job.from().millimetres()))
                .map(m -> RenderedLine.texts(writer.lines(Event.FIRST_LOAD, m)))
                .orElse(List.of());
    }

    private OptionalInt slot(Door seam) {
        if (!writer.rig().printer().abilities().understands(Command.T)) {
            return OptionalInt.empty();
        }
        return OptionalInt.of(new Extruders(ledger, t -> writer.door(t, match)).at(seam.offset()));
    }

    private List<String> end(Job job, Door seam) {
        return way(
                seam.state(),
                match.file().end(),
                over(seam.state(), match.file().end(), job.to()));
    }

    /** @param standing how high plastic stands by then; where a band has ended lower, the nozzle does not */
    private static double over(ControllerState now, ControllerState then, Height standing) {
        return Math.max(standing.millimetres(), Math.max(now.z(), then.z())) + Joint.OVER;
    }

    private List<String> way(ControllerState now, ControllerState then, double over) {
        Joint joint = new Joint(writer.rig().printer());
        List<String> lines = new ArrayList<>(joint.up(now, then, OptionalInt.empty(), now.draw(), over));
        ControllerState up = then.standing(now.x(), now.y(), over);
        double owed =
                Math.max(0, joint.drawnUp(now.draw()).length() - then.draw().length());
        lines.addAll(joint.across(up, then, over, owed));
        return lines;
    }
}
