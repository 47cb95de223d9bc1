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
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;

/** Files as different programs write them: with swaps in them, the same plastic is laid as without. */
class DialectsTest {
    /**
     * How a program writes.
     *
     * @param added whether numbers of filament are added where the print goes on
     * @param together the reading of G90 and G91 that it counts on
     * @param hops whether the nozzle rises in relative places between layers
     * @param saysAgain whether it says how filament is counted after each hop
     * @param early whether it moves relatively once before the print
     */
    record Dialectal(
            boolean added,
            boolean together,
            boolean hops,
            boolean saysAgain,
            boolean early,
            boolean inches,
            boolean crlf,
            boolean lower,
            boolean numbered) {

        byte[] file() {
            StringBuilder out = new StringBuilder();
            double unit = inches ? 25.4 : 1;
            double e = 0;
            line(out, inches ? "G20" : "G21");
            line(out, "G90");
            line(out, filament());
            line(out, "M109 S210");
            line(out, "G28");
            if (early) {
                line(out, "G91");
                line(out, "G1 Z" + number(5 / unit) + " F600");
                line(out, "G90");
            }
            if (together && early || saysAgain) {
                line(out, filament());
            }
            line(out, "G92 E0");
            for (int layer = 1; layer <= 15; layer++) {
                line(out, "; layer " + layer);
                if (hops) {
                    line(out, "G91");
                    line(out, "G1 Z" + number(1 / unit) + " F600");
                    line(out, "G90");
                    if (saysAgain || together && added) {
                        line(out, filament());
                    }
                }
                line(out, "G0 X" + number(50 / unit) + " Y" + number(50 / unit) + " F" + number(7200 / unit));
                line(out, "G1 Z" + number(0.2 * layer / unit) + " F" + number(600 / unit));
                double[][] corners = {{70, 50}, {70, 70}, {50, 70}, {50, 50.4 + 0.01 * layer}};
                for (double[] corner : corners) {
                    double more = 0.7 + 0.01 * layer;
                    e = added ? more : e + more;
                    line(
                            out,
                            "G1 X" + number(corner[0] / unit) + " Y" + number(corner[1] / unit) + " E"
                                    + number(e / unit) + " F" + number(1800 / unit));
                }
            }
            return out.toString().getBytes(StandardCharsets.US_ASCII);
        }

        private String filament() {
            return added ? "M83" : "M82";
        }

        private static String number(double value) {
            return String.format(Locale.ROOT, "%.6f", value);
        }

        private void line(StringBuilder out, String text) {
            boolean comment = text.startsWith(";");
            String written = lower && !comment ? text.toLowerCase(Locale.ROOT) : text;
            if (numbered && !comment) {
                written = (lower ? "n" : "N") + out.length() + " " + written;
                int sum = 0;
                for (char c : written.toCharArray()) {
                    sum ^= c;
                }
                written += "*" + sum;
            }
            out.append(written).append(crlf ? "\r\n" : "\n");
        }
    }

    @Provide
    Arbitrary<Dialectal> dialects() {
        Arbitrary<Boolean> yesOrNo = Arbitraries.of(true, false);
        return Combinators.combine(yesOrNo, yesOrNo, yesOrNo, yesOrNo, yesOrNo, yesOrNo, yesOrNo, yesOrNo)
                .as((added, together, hops, again, early, inches, crlf, lower) ->
                        new Dialectal(added, together, hops, again, early, inches, crlf, lower, false))
                .flatMap(d -> yesOrNo.map(numbered -> new Dialectal(
                        d.added(),
                        d.together(),
                        d.hops(),
                        d.saysAgain(),
                        d.early(),
                        d.inches(),
                        d.crlf(),
                        d.lower(),
                        numbered)));
    }

    @Property(tries = 400)
    void with_swaps_the_same_plastic_is_laid_as_without(@ForAll("dialects") Dialectal dialect) throws IOException {
        byte[] original = dialect.file();
        Bench bench = new Bench().start(2, Spools.CHALK);
        Counting counting = dialect.together() ? Counting.WITH_PLACES : Counting.BY_ITSELF;
        bench.printer = bench.printer.with(bench.printer.abilities().reading(new Dialect(counting)));
        bench.sliced(original);
        assertThat(bench.match()).isPresent();
        byte[] written = bench.reckoning().patch().applyTo(original);
        assertThat(new String(written, StandardCharsets.ISO_8859_1)).containsPattern("(?m)^M0\\r?$");
        laysTheSame(original, written, dialect.together());
        if (!bench.file.orElseThrow().readingsDiffer()) {
            laysTheSame(original, written, !dialect.together());
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
        assertThat(!differs || dialect.added()).isTrue();
    }

    private static boolean asks(Bench bench) {
        return bench.findings().stream().map(Finding::key).anyMatch("filament-readings"::equals);
    }
}
