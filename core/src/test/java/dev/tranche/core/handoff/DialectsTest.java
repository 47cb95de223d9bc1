package dev.tranche.core.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.core.check.Bench;
import dev.tranche.core.check.Finding;
import dev.tranche.core.gcode.Patch;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Dialect.Counting;
import dev.tranche.core.plan.Spools;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;

/** Files as different programs write them: with swaps in them, the same plastic is laid as without. */
class DialectsTest {
    /** What a program may do when it writes a file. */
    enum Trait {
        /** Numbers of filament are added where the print goes on. */
        ADDED,
        /** It counts on G90 and G91 being about filament, too. */
        TOGETHER,
        /** The nozzle rises in relative places between layers. */
        HOPS,
        /** How filament is counted is said again after each hop. */
        SAYS_AGAIN,
        /** It moves relatively once before the print. */
        EARLY,
        INCHES,
        CRLF,
        LOWER,
        NUMBERED,
        /** The upper colour has a tool of its own. */
        TOOLS,
        /** The first tool is chosen before it prints. */
        SAYS_FIRST,
        /** One side is an arc. */
        ARCS,
        /** Filament is counted by its volume. */
        VOLUME,
        /** Filament is drawn back for travels, and further for a change of tools. */
        DRAWS_BACK,
        /** Moves go on without saying G1 again. */
        MODAL,
        /** It stops where the plan does, and is to be replaced. */
        STOPS
    }

    /** How a program writes. */
    record Dialectal(Set<Trait> traits) {
        boolean does(Trait trait) {
            return traits.contains(trait);
        }

        byte[] file() {
            return new Writing(this).file();
        }
    }

    /** A file in the making. */
    private static final class Writing {
        private static final double AREA = Math.PI * 1.75 * 1.75 / 4;

        private final Dialectal d;
        private final StringBuilder out = new StringBuilder();
        private final double unit;
        private double e;

        Writing(Dialectal dialect) {
            d = dialect;
            unit = d.does(Trait.INCHES) ? 25.4 : 1;
        }

        byte[] file() {
            line(d.does(Trait.INCHES) ? "G20" : "G21");
            line("G90");
            line(filament());
            if (d.does(Trait.VOLUME)) {
                line("M200 D1.75");
            }
            line("M109 S210");
            line("G28");
            if (d.does(Trait.TOOLS) && d.does(Trait.SAYS_FIRST)) {
                line("T0");
            }
            if (d.does(Trait.EARLY)) {
                line("G91");
                line("G1 Z" + number(5 / unit) + " F600");
                line("G90");
            }
            if (d.does(Trait.TOGETHER) && d.does(Trait.EARLY) || d.does(Trait.SAYS_AGAIN)) {
                line(filament());
            }
            line("G92 E0");
            for (int layer = 1; layer <= 15; layer++) {
                if (layer == 11) {
                    border();
                }
                layer(layer);
            }
            return out.toString().getBytes(StandardCharsets.US_ASCII);
        }

        /** Between the colours of the plan. */
        private void border() {
            if (d.does(Trait.TOOLS)) {
                if (d.does(Trait.DRAWS_BACK)) {
                    line("G1 " + feed(-8) + " F" + number(1800 / unit));
                }
                line("T1");
            }
            if (d.does(Trait.STOPS)) {
                line("M600");
            }
        }

        private void layer(int layer) {
            line("; layer " + layer);
            if (d.does(Trait.HOPS)) {
                line("G91");
                line("G1 Z" + number(1 / unit) + " F600");
                line("G90");
                if (d.does(Trait.SAYS_AGAIN) || d.does(Trait.TOGETHER) && d.does(Trait.ADDED)) {
                    line(filament());
                }
            }
            line("G0 X" + number(50 / unit) + " Y" + number(50 / unit) + " F" + number(7200 / unit));
            line((d.does(Trait.MODAL) ? "" : "G1 ") + "Z" + number(0.2 * layer / unit) + " F" + number(600 / unit));
            // A tool that has not been used is not drawn back, nor is the first at the beginning.
            boolean primed = layer == 1 || layer == 11 && d.does(Trait.TOOLS);
            if (d.does(Trait.DRAWS_BACK) && !primed) {
                line("G1 " + feed(1) + " F" + number(1800 / unit));
            }
            double[][] corners = {{70, 50}, {70, 70}, {50, 70}, {50, 50.4 + 0.01 * layer}};
            for (int i = 0; i < corners.length; i++) {
                boolean arc = d.does(Trait.ARCS) && i == 2;
                String move = arc ? "G2 " : d.does(Trait.MODAL) && i == 1 ? "" : "G1 ";
                String to = "X" + number(corners[i][0] / unit) + " Y" + number(corners[i][1] / unit);
                String centre = arc ? " I" + number(-10 / unit) + " J" + number(0) : "";
                line(move + to + centre + " " + feed(0.7 + 0.01 * layer) + " F" + number(1800 / unit));
            }
            if (d.does(Trait.DRAWS_BACK)) {
                line("G1 " + feed(-1) + " F" + number(1800 / unit));
            }
        }

        /** The word for so many mm of filament more. */
        private String feed(double more) {
            e = d.does(Trait.ADDED) ? more : e + more;
            return "E" + number(d.does(Trait.VOLUME) ? e * AREA / Math.pow(unit, 3) : e / unit);
        }

        private String filament() {
            return d.does(Trait.ADDED) ? "M83" : "M82";
        }

        private static String number(double value) {
            return String.format(Locale.ROOT, "%.7f", value);
        }

        private void line(String text) {
            boolean comment = text.startsWith(";");
            String written = d.does(Trait.LOWER) && !comment ? text.toLowerCase(Locale.ROOT) : text;
            if (d.does(Trait.NUMBERED) && !comment) {
                written = (d.does(Trait.LOWER) ? "n" : "N") + out.length() + " " + written;
                int sum = 0;
                for (char c : written.toCharArray()) {
                    sum ^= c;
                }
                written += "*" + sum;
            }
            out.append(written).append(d.does(Trait.CRLF) ? "\r\n" : "\n");
        }
    }

    @Provide
    Arbitrary<Dialectal> dialects() {
        return Arbitraries.of(Trait.class).set().ofMaxSize(9).map(Dialectal::new);
    }

    @Property(tries = 600)
    void with_swaps_the_same_plastic_is_laid_as_without(@ForAll("dialects") Dialectal dialect) throws IOException {
        byte[] original = dialect.file();
        boolean together = dialect.does(Trait.TOGETHER);
        Bench bench = new Bench().start(2, Spools.CHALK);
        Counting counting = together ? Counting.WITH_PLACES : Counting.BY_ITSELF;
        bench.printer = bench.printer.with(bench.printer.abilities().reading(new Dialect(counting)));
        bench.said = Said.NOTHING.stops(List.of(0), Optional.of(StopTable.Choice.REPLACE));
        bench.sliced(original);
        assertThat(bench.match()).isPresent();
        byte[] written = bench.reckoning().patch().applyTo(original);
        String text = new String(written, StandardCharsets.ISO_8859_1);
        assertThat(text).containsPattern("(?m)^M0\\r?$");
        assertThat(text.toUpperCase(Locale.ROOT)).doesNotContainPattern("(?m)^(N\\d+ )?(T\\d|M600)");
        laysTheSame(original, written, together);
        if (!bench.file.orElseThrow().readingsDiffer()) {
            laysTheSame(original, written, !together);
        }
        bench.sliced(written);
        assertThat(Patch.removing(bench.file.orElseThrow()).applyTo(written)).isEqualTo(original);
    }

    private static void laysTheSame(byte[] original, byte[] written, boolean together) {
        List<PlainMachine.Laid> before = PlainMachine.run(original, together);
        List<PlainMachine.Laid> after = PlainMachine.run(written, together);
        assertThat(after).hasSameSizeAs(before);
        for (int i = 0; i < before.size(); i++) {
            assertThat(after.get(i).isAs(before.get(i)))
                    .as("%s became %s (G90 counts filament: %s)", before.get(i), after.get(i), together)
                    .isTrue();
        }
    }

    @Property(tries = 60)
    void where_firmwares_count_differently_the_owner_is_asked_until_it_is_said(@ForAll("dialects") Dialectal dialect) {
        byte[] file = dialect.file();
        boolean differs = PlainMachine.fed(file, true) != PlainMachine.fed(file, false);
        Bench bench = new Bench().start(2, Spools.CHALK);
        assertThat(asks(bench.sliced(file)) || !differs).isTrue();
        bench.printer = bench.printer.with(bench.printer.abilities().reading(new Dialect(Counting.BY_ITSELF)));
        assertThat(asks(bench.sliced(file))).isFalse();
        // Most files say it again, and nobody is asked.
        assertThat(!differs || dialect.does(Trait.ADDED)).isTrue();
    }

    private static boolean asks(Bench bench) {
        return bench.findings().stream().map(Finding::key).anyMatch("filament-readings"::equals);
    }
}
