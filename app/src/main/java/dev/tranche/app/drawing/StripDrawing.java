package dev.tranche.app.drawing;

import dev.tranche.app.web.Figures;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.Macro;
import java.util.ArrayList;
import java.util.List;

/**
 * A macro as time goes by: one block a step, as wide as it takes.
 *
 * @param blocks from left to right
 */
public record StripDrawing(int width, int height, List<Block> blocks) {
    private static final int HEIGHT = 34;
    private static final double NARROWEST = 4;

    /**
     * @param step index, −1 for the frame
     * @param person whether the person takes this time
     * @param label what fits in it
     */
    public record Block(int step, double x, double width, boolean person, String label, String title) {}

    public static StripDrawing of(Macro macro, DryRun run, Figures figures, int width) {
        List<Block> blocks = new ArrayList<>();
        double total = Math.max(1, run.seconds());
        long shown = run.strip().stream()
                .mapToLong(s -> (s.machine() > 0 ? 1 : 0) + (s.person() > 0 ? 1 : 0))
                .sum();
        double scale = Math.max(1, width - 2 - shown * NARROWEST) / total;
        double x = 1;
        for (DryRun.StepTime time : run.strip()) {
            String name = time.step() < 0
                    ? "Back to the print"
                    : (time.step() + 1) + " "
                            + macro.steps().get(time.step()).step().title();
            for (boolean person : new boolean[] {false, true}) {
                double seconds = person ? time.person() : time.machine();
                if (seconds > 0) {
                    double w = NARROWEST + seconds * scale;
                    String what = name + (person && !name.endsWith("person") ? ", the person" : "");
                    blocks.add(new Block(
                            time.step(),
                            x,
                            w,
                            person,
                            fit(what, time.step(), w),
                            what + ": " + figures.exact(seconds)));
                    x += w;
                }
            }
        }
        return new StripDrawing(width, HEIGHT, blocks);
    }

    private static String fit(String name, int step, double width) {
        if (width > 6.6 * name.length() + 8) {
            return name;
        }
        return width > 18 && step >= 0 ? Integer.toString(step + 1) : "";
    }
}
