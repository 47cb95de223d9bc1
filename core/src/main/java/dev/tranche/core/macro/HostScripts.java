package dev.tranche.core.macro;

import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import java.util.Optional;

/**
 * The two scripts a host runs at a pause.
 *
 * @param pause lines for the script that runs when the print pauses
 * @param resume lines for the script that runs before it goes on
 */
public record HostScripts(List<RenderedLine> pause, List<RenderedLine> resume) {
    public HostScripts {
        pause = List.copyOf(pause);
        resume = List.copyOf(resume);
    }

    /**
     * The scripts of {@code book}, with places as its host writes them.
     *
     * @param moment whose modes are taken for the file's
     * @throws Refusal if no pause or no resume macro is on
     */
    public static HostScripts of(MacroBook book, Printer printer, Moment moment) {
        Macro pause = book.answer(Event.HOST_PAUSE)
                .orElseThrow(() -> new Refusal("No host pause macro is on; add one, or switch one on."));
        Macro resume = book.answer(Event.HOST_RESUME)
                .orElseThrow(() -> new Refusal("No host resume macro is on; add one, or switch one on."));
        MacroRenderer.Pair pair = MacroRenderer.renderPair(
                pause, resume, printer, moment, Optional.of(book.hostNames().spelling()));
        return new HostScripts(pair.pause(), pair.resume());
    }

    /** The scripts as a host runs them that knows the numbers of {@code moment}; nothing where the book has none. */
    public static Optional<HostScripts> running(MacroBook book, Printer printer, Moment moment) {
        return book.answer(Event.HOST_PAUSE)
                .flatMap(pause -> book.answer(Event.HOST_RESUME)
                        .map(resume -> MacroRenderer.renderPair(pause, resume, printer, moment, Optional.empty())))
                .map(pair -> new HostScripts(pair.pause(), pair.resume()));
    }

    /** A script as text, one line a line. */
    public static String text(List<RenderedLine> lines) {
        return String.join("\n", RenderedLine.texts(lines)) + "\n";
    }

    /**
     * Runs one half, after or before the other: a pair is only right together. The faults told are those of
     * {@code macro}, and of the pair as a whole.
     */
    static DryRun dryRun(Macro macro, MacroBook book, Printer printer, Moment moment) {
        boolean first = macro.event() == Event.HOST_PAUSE;
        Macro nothing = Macro.of(first ? Event.HOST_RESUME : Event.HOST_PAUSE);
        Macro other = book.answer(nothing.event()).orElse(nothing);
        MacroRenderer.Pair pair = MacroRenderer.renderPair(
                first ? macro : other, first ? other : macro, printer, moment, Optional.empty());
        DryRunner runner = new DryRunner(macro, printer, moment, List.of());
        runner.execute(first ? pair.pause() : framed(pair.pause()), first);
        runner.execute(first ? framed(pair.resume()) : pair.resume(), !first);
        return runner.finish(first ? pair.pause() : pair.resume());
    }

    private static List<RenderedLine> framed(List<RenderedLine> lines) {
        return lines.stream().map(l -> l.under(RenderedLine.FRAME)).toList();
    }
}
