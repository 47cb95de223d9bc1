package dev.tranche.core.macro;

import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Refusal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * All macros of a printer.
 *
 * @param method how it swaps
 * @param macros in the order their owner sees them; several may answer one event, though only one should be on
 * @param hostNames how its host writes places
 * @param hookNames how the slicing program writes what it knows
 */
public record MacroBook(SwapMethod method, List<Macro> macros, HostNames hostNames, HookNames hookNames) {
    private static final int MOST_MACROS = 40;

    public MacroBook {
        macros = List.copyOf(macros);
        if (macros.size() > MOST_MACROS) {
            throw Refusal.of("%d macros are too many for one printer; %d are allowed.", macros.size(), MOST_MACROS);
        }
    }

    public Macro macro(int index) {
        if (index < 0 || index >= macros.size()) {
            throw new Refusal("That macro is not there any more; choose another.");
        }
        return macros.get(index);
    }

    public MacroBook replace(int index, Macro macro) {
        macro(index);
        List<Macro> list = new ArrayList<>(macros);
        list.set(index, macro);
        return new MacroBook(method, list, hostNames, hookNames);
    }

    public MacroBook add(Macro macro) {
        List<Macro> list = new ArrayList<>(macros);
        list.add(macro);
        return new MacroBook(method, list, hostNames, hookNames);
    }

    public MacroBook remove(int index) {
        macro(index);
        List<Macro> list = new ArrayList<>(macros);
        list.remove(index);
        return new MacroBook(method, list, hostNames, hookNames);
    }

    public MacroBook naming(HostNames names) {
        return new MacroBook(method, macros, names, hookNames);
    }

    public MacroBook naming(HookNames names) {
        return new MacroBook(method, macros, hostNames, names);
    }

    /** Lines of the macro that swaps, as a slicing program runs them at any change of tools; none if no macro does. */
    public List<RenderedLine> atToolChange(Printer printer, Moment moment) {
        return hook(Event.SWAP, printer, moment, hookNames.spellingOfTools());
    }

    /** Lines of the macro that answers {@code event}, as a slicing program runs them at that very moment. */
    public List<RenderedLine> atMoment(Event event, Printer printer, Moment moment) {
        return hook(event, printer, moment, hookNames.spellingOfPlaces());
    }

    private List<RenderedLine> hook(Event event, Printer printer, Moment moment, Spelling names) {
        return answer(event)
                .map(macro -> MacroRenderer.renderFor(macro.at(moment), printer, moment, names))
                .orElse(List.of());
    }

    /** Macros that are on for {@code event}. */
    public List<Macro> firing(Event event) {
        return macros.stream().filter(m -> m.on() && m.event() == event).toList();
    }

    /** The macro that answers {@code event}: the first that is on. */
    public Optional<Macro> answer(Event event) {
        return firing(event).stream().findFirst();
    }
}
