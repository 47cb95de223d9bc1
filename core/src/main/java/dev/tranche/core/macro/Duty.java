package dev.tranche.core.macro;

import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Drive;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.speech.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/**
 * What a person does at one stop of a macro: proposed from its steps, or in the owner's own words.
 *
 * @param step index of the step that stops
 * @param acts in their order
 */
public record Duty(int step, List<String> acts) {
    /** What ends a print or moves it, at any stop (common practice). */
    public static final String NEVER =
            "Do not stop or cancel the print, move the carriage by hand, home it or switch the motors off: it would go on in another place.";

    public Duty {
        acts = List.copyOf(acts);
    }

    /** At each stop of {@code macro}, in their order, with the numbers of {@code moment}. */
    public static List<Duty> of(Macro macro, Printer printer, Moment moment) {
        return new Stops(macro, printer, moment)
                .indices().stream()
                        .map(i -> new Duty(
                                i,
                                text(macro, i, printer, moment)
                                        .lines()
                                        .map(l -> Template.of(l)
                                                .fill(moment, printer)
                                                .strip())
                                        .filter(l -> !l.isEmpty())
                                        .toList()))
                        .toList();
    }

    /** Whether step {@code index} is a stop of {@code macro} at {@code moment}. */
    public static boolean isAsked(Macro macro, int index, Printer printer, Moment moment) {
        return new Stops(macro, printer, moment).indices().contains(index);
    }

    private static String text(Macro macro, int index, Printer printer, Moment moment) {
        String told = macro.step(index).told();
        return told.isEmpty() ? proposed(macro, index, printer, moment) : told;
    }

    /** What Tranche would say at the stop of step {@code index}: one act a line, with names between braces. */
    public static String proposed(Macro macro, int index, Printer printer, Moment moment) {
        return String.join("\n", new Stops(macro, printer, moment).acts(index));
    }

    /** The stops of one macro, and what each of them is for. */
    private record Stops(Macro macro, Printer printer, Moment moment) {

        List<Integer> indices() {
            return macro.stops(moment);
        }

        private IntStream steps() {
            return IntStream.range(0, macro.steps().size())
                    .filter(i -> macro.steps().get(i).happensFor(moment.extruder()));
        }

        private Step at(int index) {
            return macro.steps().get(index).step();
        }

        List<String> acts(int index) {
            List<String> acts = new ArrayList<>();
            boolean first = (printer.hotend().blends() || !macro.feedsItself(moment.extruder()))
                    && indices().stream().findFirst().filter(i -> i == index).isPresent();
            if (macro.event() == Event.HALT) {
                acts.add("{{note}}");
            } else if (macro.event().isHosts()) {
                acts.add("Change the spool as the list says");
            } else if (first) {
                change(index, acts);
            } else {
                acts.add("See whether {{in}} comes out clean; push more through if not");
                acts.add("Clear away the strand");
            }
            acts.add(goingOn(index));
            return acts;
        }

        private void change(int index, List<String> acts) {
            boolean routine = at(index) instanceof Step.FirmwareRoutine;
            if (macro.event() == Event.SWAP) {
                acts.add(out(index, routine));
            }
            acts.add("Cut the end of {{in}} at a slant");
            boolean gears = steps().anyMatch(i -> i > index && at(i) instanceof Step.Load);
            acts.add(
                    routine
                            ? "Push {{in}} up to the gears and say so at the printer; it draws it in"
                            : gears
                                    ? "Push {{in}} up to the gears; they take it from there"
                                    : "Push {{in}} in, {{gears}} mm from gears to nozzle, until it comes out");
            Purging purging = Purging.of(macro, moment);
            if (purging.by() == Purging.By.PERSON) {
                acts.add("Push {{purge_mm}} mm more through, until it is clean");
            } else if (purging.length() > 0 && purging.by() != Purging.By.NOBODY) {
                acts.add("The printer pushes {{purge_mm}} mm through"
                        + (purging.by() == Purging.By.MACRO ? " afterwards" : ""));
            }
            if (purging.by() != Purging.By.MACRO) {
                acts.add("Clear away the strand");
            }
        }

        private String out(int index, boolean routine) {
            if (routine) {
                return "The printer draws {{out}} out; take it away";
            } else if (steps().anyMatch(i -> i < index && at(i) instanceof Step.Unload)) {
                return "The gears have drawn {{out}} out; take it away";
            }
            String hot = moment.temperatureOut() > 0 ? ", while the nozzle has " + heat(index) + " °C" : "";
            return (printer.drive() instanceof Drive.Tube ? "Free the gears and pull" : "Pull") + " {{out}} out by hand"
                    + hot;
        }

        /** What the nozzle was brought to last before a stop, as a name between braces. */
        private String heat(int index) {
            HeatFor last = HeatFor.OUTGOING;
            for (int i : steps().filter(i -> i < index).toArray()) {
                last = at(i) instanceof Step.Heat h ? h.to() : at(i) instanceof Step.SetHeat h ? h.to() : last;
            }
            return last.inTexts().braced();
        }

        private String goingOn(int index) {
            Step step = at(index);
            if (step instanceof Step.Dwell d) {
                return Words.format("Hands off: it goes on by itself after %d s", d.seconds());
            }
            boolean host = step instanceof Step.WaitForPerson w
                    && (w.by() == Command.M25 || printer.abilities().pausesHost(w.by()));
            return host ? "Resume the print at the host" : "Let the printer go on";
        }
    }
}
