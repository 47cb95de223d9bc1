package dev.tranche.app.printers;

import dev.tranche.core.macro.HookNames;

/** How a slicing program writes what it knows, as it is typed. */
record HooksForm(
        String oldTool,
        String newTool,
        String layer,
        String atX,
        String atY,
        String atZ,
        String count,
        String mode,
        String purge,
        String ifTools,
        String ifLayer,
        String end,
        int firstLayer) {
    HookNames names() {
        return new HookNames(
                oldTool, newTool, layer, atX, atY, atZ, count, mode, purge, ifTools, ifLayer, end, firstLayer);
    }
}
