package dev.tranche.app.pictures;

import static dev.tranche.app.drawing.SvgPath.hundredths;

import dev.tranche.app.drawing.SvgPath;
import dev.tranche.app.drawing.Ticks;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.Schedule;
import dev.tranche.core.estimate.Stretch;
import dev.tranche.core.estimate.Swap;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Words;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * The print as time goes by: a line a spool, and a ribbon that runs along the line of the loaded one.
 *
 * @param staves one a spool
 * @param bars stretches of the ribbon
 * @param crowds the same where there are too many to be told apart: for each spool one path
 * @param steps from line to line, one a swap
 * @param halts stops without a change of spool, on the line of the loaded one
 * @param layers where each begins, once the score is stretched so far that there is room: between them lies the order
 *     inside a layer
 * @param clock ticks under the lines
 * @param zoom times the width is stretched
 */
public record ScoreDrawing(
        int width,
        int height,
        double left,
        double right,
        double top,
        double bottom,
        List<Stave> staves,
        List<Bar> bars,
        List<Crowd> crowds,
        List<Step> steps,
        List<Halt> halts,
        List<Tick> layers,
        List<Tick> clock,
        int zoom) {
    private static final double LEFT = 116;
    private static final double RIGHT = 18;
    private static final double TOP = 24;
    private static final double BOTTOM = 26;
    private static final int DEEPEST_ZOOM = 64;
    private static final double FINEST = 1.5;
    /** Room a layer needs for its number, px. */
    private static final double LAYER_ROOM = 24;
    /** Swaps nearer to one another are drawn when the score is stretched, px. */
    private static final double CLOSEST = 4;
    /** Room a step needs for the number of its layer, px. */
    private static final double LABEL = 30;
    /** More cannot be looked at one by one. */
    private static final int MOST_BARS = 250;

    /** A spool's line. */
    public record Stave(SpoolMark mark, double y, String total) {}

    /**
     * Printing with one spool.
     *
     * @param tones colours that a fade turns through, from left to right; of anything else none
     */
    public record Bar(
            SpoolMark mark,
            double x,
            double width,
            double y,
            int fromLayer,
            int toLayer,
            String title,
            List<String> tones) {}

    /** All the printing with one spool, where its bars are too many to be looked at one by one: a path down their middles. */
    public record Crowd(SpoolMark mark, String path) {}

    /** A swap: from one line to another, with a drop as large as its purge. */
    public record Step(
            int number,
            int layer,
            double x,
            double width,
            double fromY,
            double toY,
            double drop,
            boolean labelled,
            String title) {
        /** Half of the height of a bar. */
        private static final double HALF = 6;

        /** Where its drop hangs. */
        public double middle() {
            return hundredths(x + width / 2);
        }

        public double top() {
            return hundredths(Math.min(fromY, toY) - HALF);
        }

        public double height() {
            return hundredths(Math.abs(toY - fromY) + 2 * HALF);
        }
    }

    /** A halt: two bars, as for a pause in music. */
    public record Halt(double x, double y, int layer, String title) {}

    /** A time on the scale. */
    public record Tick(double x, String text) {}

    public static ScoreDrawing of(Workpiece work, Figures figures, int layer, int zoom, int width, int height) {
        int stretched = Math.max(1, Math.min(zoom, DEEPEST_ZOOM));
        double total = Math.max(1, work.ledger().totalSeconds());
        double span = total / stretched;
        double from = Math.max(0, Math.min(total - span, work.ledger().layers().begin(layer) - span / 2));
        Scale scale = new Scale(LEFT, width - RIGHT, from, from + span);
        Map<SpoolId, Double> seconds = seconds(work);
        List<SpoolId> palette = List.copyOf(seconds.keySet());
        double pitch = (height - TOP - BOTTOM) / Math.max(1, palette.size());
        List<Stave> staves = new ArrayList<>();
        for (int i = 0; i < palette.size(); i++) {
            double y = hundredths(TOP + pitch * (i + 0.5));
            staves.add(new Stave(SpoolMark.of(work, palette.get(i)), y, figures.time(seconds.get(palette.get(i)))));
        }
        boolean crowded = work.ledger().stretches().stream()
                        .filter(s -> s.to() > scale.from() && s.from() < scale.to())
                        .count()
                > MOST_BARS;
        return new ScoreDrawing(
                width,
                height,
                LEFT,
                width - RIGHT,
                TOP,
                height - BOTTOM,
                staves,
                crowded ? List.of() : bars(work, figures, scale, staves),
                crowded ? crowds(work, scale, staves) : List.of(),
                steps(work, figures, scale, staves, pitch),
                halts(work, figures, scale, staves),
                layers(work, scale),
                clock(work, figures, scale),
                stretched);
    }

    /** How long is printed with each; where a plan blends, no spool has a time of its own. */
    private static Map<SpoolId, Double> seconds(Workpiece work) {
        Map<SpoolId, Double> seconds = new LinkedHashMap<>();
        if (work.colours().mixed().isEmpty()) {
            work.ledger().uses().forEach(u -> seconds.put(u.spool().id(), u.seconds()));
        } else {
            work.ledger().stretches().forEach(s -> seconds.merge(s.spool(), s.to() - s.from(), Double::sum));
        }
        return seconds;
    }

    /** Where the cursor stands: px, or −1 outside the window. */
    public double cursor(Workpiece work, int layer) {
        double total = Math.max(1, work.ledger().totalSeconds());
        double span = total / zoom;
        double from = Math.max(0, Math.min(total - span, work.ledger().layers().begin(layer) - span / 2));
        return new Scale(left, right, from, from + span)
                .x(work.ledger().layers().begin(layer));
    }

    private record Scale(double left, double right, double from, double to) {
        double x(double seconds) {
            double x = left + (seconds - from) / (to - from) * (right - left);
            return Math.max(left, Math.min(right, x));
        }

        boolean shows(double seconds) {
            return seconds >= from && seconds <= to;
        }
    }

    private static double line(List<Stave> staves, long spool) {
        return staves.stream()
                .filter(s -> s.mark().id() == spool)
                .findFirst()
                .orElseThrow()
                .y();
    }

    private static List<Crowd> crowds(Workpiece work, Scale scale, List<Stave> staves) {
        Map<SpoolId, SvgPath> paths = new LinkedHashMap<>();
        Map<SpoolId, Double> lastEnd = new HashMap<>();
        for (Stretch stretch : work.ledger().stretches()) {
            double x = Math.max(scale.x(stretch.from()), lastEnd.getOrDefault(stretch.spool(), 0.0));
            double width = scale.x(stretch.to()) - x;
            if (width > 0 && scale.x(stretch.to()) > lastEnd.getOrDefault(stretch.spool(), -CLOSEST) + FINEST) {
                lastEnd.put(stretch.spool(), x + Math.max(width, FINEST));
                paths.computeIfAbsent(stretch.spool(), s -> SvgPath.coarse())
                        .move(x, line(staves, stretch.spool().value()))
                        .line(
                                x + Math.max(width, FINEST),
                                line(staves, stretch.spool().value()));
            }
        }
        return paths.entrySet().stream()
                .map(e -> new Crowd(SpoolMark.of(work, e.getKey()), e.getValue().toString()))
                .toList();
    }

    private static List<Bar> bars(Workpiece work, Figures figures, Scale scale, List<Stave> staves) {
        List<Bar> bars = new ArrayList<>();
        Map<SpoolId, Double> lastEnd = new HashMap<>();
        for (Stretch stretch : work.ledger().stretches()) {
            double x = scale.x(stretch.from());
            double to = scale.x(stretch.to());
            // On one line, what is nearer than can be told apart is drawn once.
            if (to > x && to > lastEnd.getOrDefault(stretch.spool(), Double.NEGATIVE_INFINITY) + FINEST) {
                lastEnd.put(stretch.spool(), to);
                SpoolMark mark = SpoolMark.of(work, stretch.spool());
                String title = Words.format(
                        "%s %s, %s, %s",
                        mark.letter(),
                        mark.name(),
                        Words.layers(stretch.firstLayer(), stretch.lastLayer()),
                        figures.time(stretch.to() - stretch.from()));
                bars.add(new Bar(
                        mark,
                        hundredths(x),
                        hundredths(to - x),
                        line(staves, mark.id()),
                        stretch.firstLayer(),
                        stretch.lastLayer(),
                        title,
                        tones(work, mark, stretch)));
            }
        }
        return bars;
    }

    private static List<String> tones(Workpiece work, SpoolMark mark, Stretch stretch) {
        int layers = stretch.lastLayer() - stretch.firstLayer();
        int count = mark.fade().isEmpty() ? 0 : Math.min(mark.fade().size(), layers + 1);
        return IntStream.range(0, count)
                .mapToObj(i -> work.paints()
                        .at(stretch.spool(), stretch.firstLayer() + i * layers / Math.max(1, count - 1))
                        .colour()
                        .hex())
                .toList();
    }

    private static List<Step> steps(Workpiece work, Figures figures, Scale scale, List<Stave> staves, double pitch) {
        List<Step> steps = new ArrayList<>();
        double largest = work.ledger().swaps().stream()
                .mapToDouble(s -> s.purge().volume().cubicMillimetres())
                .max()
                .orElse(1);
        long shown = work.ledger().swaps().stream()
                .filter(s -> scale.shows(s.startsAt()))
                .count();
        // Where swaps crowd, their drops get out of one another's way.
        double apart = (scale.right() - scale.left()) / Math.max(1, shown);
        double mostRadius = Math.min(Math.min(11, pitch * 0.42), Math.max(2, apart * 0.45));
        double lastLabel = Double.NEGATIVE_INFINITY;
        double lastStep = Double.NEGATIVE_INFINITY;
        for (Swap swap : work.ledger().swaps()) {
            if (!scale.shows(swap.startsAt())) {
                continue;
            }
            double x = scale.x(swap.startsAt());
            double share = largest == 0 ? 0 : swap.purge().volume().cubicMillimetres() / largest;
            if (x - lastStep < (shown > MOST_BARS ? LABEL : CLOSEST)) {
                continue;
            }
            lastStep = x;
            boolean labelled = x - lastLabel > LABEL;
            if (labelled) {
                lastLabel = x;
            }
            String title = Words.format(
                    "%s %s: %s out, %s in, purge %s, after %s",
                    swap.name(),
                    swap.place(),
                    swap.out().name(),
                    swap.in().name(),
                    figures.length(work.ledger().filament().length(swap.pushed())),
                    figures.time(swap.startsAt()));
            steps.add(new Step(
                    swap.number(),
                    swap.layer(),
                    hundredths(x),
                    hundredths(Math.max(1.5, scale.x(swap.startsAt() + swap.seconds()) - x)),
                    line(staves, swap.out().id().value()),
                    line(staves, swap.in().id().value()),
                    hundredths(mostRadius * Math.sqrt(share)),
                    labelled,
                    title));
        }
        return steps;
    }

    private static List<Halt> halts(Workpiece work, Figures figures, Scale scale, List<Stave> staves) {
        return work.ledger().pauses().stream()
                .filter(p -> scale.shows(p.startsAt()))
                .map(p -> new Halt(
                        scale.x(p.startsAt()),
                        line(staves, p.loaded().id().value()),
                        p.layer(),
                        Words.format(
                                "Halt before layer %d: %s, after %s", p.layer(), p.note(), figures.time(p.startsAt()))))
                .toList();
    }

    private static List<Tick> layers(Workpiece work, Scale scale) {
        List<Tick> ticks = new ArrayList<>();
        double last = Double.NEGATIVE_INFINITY;
        for (int layer = 1; layer <= work.grid().count(); layer++) {
            double begin = work.ledger().layers().begin(layer);
            if (scale.shows(begin)) {
                double x = scale.x(begin);
                if (x - last < LAYER_ROOM) {
                    return List.of();
                }
                last = x;
                ticks.add(new Tick(x, Integer.toString(layer)));
            }
        }
        return ticks;
    }

    /** Time since the start, or time of day where the plan has one. */
    private static List<Tick> clock(Workpiece work, Figures figures, Scale scale) {
        Optional<ZonedDateTime> start = work.schedule().map(Schedule::start);
        long step = Ticks.seconds(scale.to() - scale.from(), 12);
        List<Tick> ticks = new ArrayList<>();
        double ahead = start.map(s -> (double) s.toLocalTime().toSecondOfDay()).orElse(0.0);
        double first = Math.ceil((scale.from() + ahead) / step) * step - ahead;
        for (double t = first; t <= scale.to(); t += step) {
            double at = t;
            ticks.add(new Tick(
                    scale.x(t),
                    start.map(s -> figures.clock(s.plusSeconds(Math.round(at))))
                            .orElse(t == 0 ? "start" : figures.time(t))));
        }
        return ticks;
    }
}
