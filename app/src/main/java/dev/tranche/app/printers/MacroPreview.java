package dev.tranche.app.printers;

import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.macro.DryRun;
import dev.tranche.core.macro.MacroRenderer;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMacro;
import dev.tranche.core.macro.SwapMoment;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;

/**
 * A macro as G-code for a swap in the middle of the bed at 3 mm, and what its dry run says.
 *
 * @param lines each of them belongs to one of {@code steps}, or to the frame
 */
record MacroPreview(List<Step> steps, List<RenderedLine> lines, DryRun run) {
    static MacroPreview of(Printer printer, SwapMacro macro) {
        Coordinate middle = printer.bed().bounds().centre();
        ControllerState entry = ControllerState.standingAt(middle.x, middle.y, 3, 210);
        SwapMoment moment = new SwapMoment(1, 2, 16, "A Soot", "B Chalk", 205, 150, entry);
        List<RenderedLine> lines = MacroRenderer.render(macro, printer, moment);
        return new MacroPreview(macro.steps(), lines, DryRun.of(lines, printer, entry));
    }
}
