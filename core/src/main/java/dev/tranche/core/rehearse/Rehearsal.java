package dev.tranche.core.rehearse;

import dev.tranche.core.check.PlanFacts;
import dev.tranche.core.gcode.BlockStamp;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.ControllerState;
import dev.tranche.core.gcode.GcodeScanner;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.Event;
import dev.tranche.core.macro.HostScripts;
import dev.tranche.core.macro.Moment;
import dev.tranche.core.macro.RenderedLine;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.purge.PurgePlace;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.speech.Words;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.regex.Pattern;

/**
 * Streams the file that is handed off through a printer, with numbers and sums, as a host does; has a person do what is to be
 * done at its stops; and reports what came out beside the plan. A few hundred lines are on their way at a time, and nothing of
 * the file is kept. Not for two threads.
 */
public final class Rehearsal {
    private static final Pattern IN_WORDS = Pattern.compile("[A-Za-z][A-Za-z_].*");
    private static final int MOST_KINDS = 40;
    private static final int MOST_STOPS = 5_000;

    /** Who looks on while it runs. */
    public interface Watcher {
        /** @param bytes of the file that have been sent; {@code at} how the controller stands */
        void at(long bytes, String line, int layer, Controller at) throws IOException;

        /** What somebody would hear or see at a stop, before anything is done there. */
        void meets(Encounter stop) throws IOException;
    }

    private final PlanFacts facts;
    private final Device device;
    private final Function<Encounter, Deed> person;
    private final Watcher watcher;
    private final HostWire wire;
    private final List<SpoolId> filaments;
    private final Witness witness;
    private final Controller controller;
    private final Abilities abilities;
    private final Stops stops;
    /** In which block of the file each line on its way stands. */
    private final List<Optional<BlockStamp>> blocks =
            new ArrayList<>(Collections.nCopies(HostWire.WINDOW, Optional.empty()));

    private final List<Report.Stopped> stopped = new ArrayList<>();
    private final Map<String, Integer> troubles = new LinkedHashMap<>();
    private final Map<String, Integer> own = new LinkedHashMap<>();
    /** When the power failed, s. */
    private double last;

    /**
     * @param filaments that there are, the numbers by which the device knows them
     * @param tolerance CIEDE2000 up to which a mix counts as clean
     * @param person what they do at each stop
     */
    public Rehearsal(
            PlanFacts facts,
            List<SpoolId> filaments,
            double tolerance,
            Device device,
            Function<Encounter, Deed> person,
            Watcher watcher) {
        this.facts = facts;
        this.device = device;
        this.person = person;
        this.watcher = watcher;
        this.filaments = List.copyOf(filaments);
        this.wire = new HostWire(device, new Ear());
        this.abilities = facts.printer().abilities();
        this.controller = new Controller(abilities.dialect());
        this.stops = new Stops(facts);
        this.witness = new Witness(facts, filaments, first(facts, filaments), tolerance, HostWire.WINDOW);
    }

    /** The filament that is loaded before the start: the first that is printed, unless there is a macro to load it. */
    public static int first(PlanFacts facts, List<SpoolId> filaments) {
        return Math.max(0, filaments.indexOf(facts.ledger().stretches().get(0).spool()));
    }

    /** Sends {@code file}, and comes back when it is done, or the power has failed. */
    public Report run(InputStream file) throws IOException {
        fillSlots();
        if (facts.ledger().place() instanceof PurgePlace.Routine routine) {
            hand("routine " + routine.length());
        }
        GcodeScanner scanner = new GcodeScanner(file);
        while (!wire.isClosed() && scanner.next()) {
            if (scanner.isComment()) {
                stops.mark(scanner.comment());
            } else if (!scanner.taken()) {
                send(scanner);
            }
        }
        wire.drain();
        boolean whole = !wire.isClosed();
        double seconds = whole ? clock() : last;
        return new Report(
                stopped,
                witness.layers(),
                troubles.entrySet().stream()
                        .map(e -> new Report.Trouble(e.getKey(), e.getValue()))
                        .toList(),
                own,
                seconds,
                wire.done(),
                whole);
    }

    /** Before the start each slot of a feeder, or input of a nozzle that blends, holds what it is to hold first. */
    private void fillSlots() throws IOException {
        List<Optional<SpoolId>> inputs = facts.ledger().feeding();
        for (int i = 0; i < inputs.size(); i++) {
            if (inputs.get(i).isPresent()) {
                hand("input " + i + " " + filaments.indexOf(inputs.get(i).get()));
            }
        }
        Map<Integer, SpoolId> slots = new LinkedHashMap<>();
        for (Loading.Stage stage : facts.ledger().loading().stages()) {
            for (int t = 0; t < stage.contents().size(); t++) {
                int slot = t;
                stage.contents().get(t).ifPresent(s -> slots.putIfAbsent(slot, s));
            }
        }
        for (Map.Entry<Integer, SpoolId> slot : slots.entrySet()) {
            put(slot.getKey(), slot.getValue());
        }
    }

    private void put(int slot, SpoolId spool) throws IOException {
        int filament = filaments.indexOf(spool);
        if (filament >= 0) {
            hand("slot " + slot + " " + filament);
        }
    }

    private void send(GcodeScanner line) throws IOException {
        byte[] code = line.code();
        if (code.length == 0 || line.beginsWithParenthesis()) {
            return;
        }
        Optional<Command> command = line.letter() == 'M' ? Command.startingLine(line.codeText()) : Optional.empty();
        if (command.filter(abilities::pausesHost).isPresent()) {
            hostPauses();
            return;
        }
        boolean moves = controller.execute(line) == Controller.Effect.MOVE;
        post(code, moves);
        if ((wire.sent() & 0x3F) == 0) {
            watcher.at(line.end(), line.text(), witness.layer(), controller);
        }
    }

    private void post(byte[] code, boolean moves) throws IOException {
        wire.makeRoom();
        if (!wire.isClosed()) {
            witness.sent(controller, moves);
            blocks.set(wire.next(), stops.block());
            wire.post(code);
        }
    }

    /** Hears what the printer answers. */
    private final class Ear implements HostWire.Listener {
        @Override
        public void done() {
            witness.done();
        }

        @Override
        public void sentAgain() {
            trouble("A line did not arrive as it was sent, and was sent again.");
        }

        @Override
        public void says(String said) throws IOException {
            if (said.startsWith("// ")) {
                sees(said.substring(3).split(" ", 5));
            } else if (said.startsWith("echo:Unknown command")) {
                unknown(said.split("[\" ]+")[2]);
            } else if (said.startsWith("echo: cold extrusion")) {
                trouble("The nozzle is too cold, and the firmware moves no filament.");
            } else if (!isHarmless(said)) {
                throw HostWire.noAnswer(said);
            }
        }

        private boolean isHarmless(String said) {
            return said.startsWith("echo:")
                    || said.startsWith("T:")
                    || said.startsWith("X:")
                    || said.startsWith("Error:")
                    || said.isBlank();
        }
    }

    /** Commands in words are somebody's own, and known where the file was meant for. */
    private void unknown(String command) {
        if (IN_WORDS.matcher(command).matches()) {
            count(command, own);
        } else {
            trouble("The firmware does not understand “" + command + "” and passes over it.");
        }
    }

    private void trouble(String sentence) {
        count(sentence, troubles);
    }

    private static void count(String kind, Map<String, Integer> kinds) {
        if (kinds.size() < MOST_KINDS || kinds.containsKey(kind)) {
            kinds.merge(kind, 1, Integer::sum);
        }
    }

    /** What somebody beside the machine sees. */
    private void sees(String[] words) throws IOException {
        switch (words[0]) {
            case "mix" -> witness.mix(shares(words));
            case "nothing" -> {
                witness.missing(Double.parseDouble(words[2]));
                trouble("The nozzle moves and nothing comes out of it.");
            }
            case "stop" -> meets(Double.parseDouble(words[3]), Optional.empty());
            case "wait" -> meets(Double.parseDouble(words[3]), Optional.of(Double.parseDouble(words[2])));
            case "ends" -> trouble("The filament ends, and the printer goes on without.");
            case "ignored" -> trouble("The machine does not stop where it is told to.");
            case "gave-up" -> trouble("The heater gives up while the machine waits, and the nozzle cools.");
            case "power" -> {
                wire.close();
                last = Double.parseDouble(words[1]);
                trouble(Words.format("The power fails after %.0f min.", last / 60));
            }
            default -> {}
        }
    }

    private double[] shares(String[] words) {
        String[] numbers =
                String.join(" ", Arrays.copyOfRange(words, 2, words.length)).split(" ");
        double[] shares = new double[filaments.size()];
        for (int i = 0; i < shares.length && i < numbers.length; i++) {
            shares[i] = Double.parseDouble(numbers[i]);
        }
        return shares;
    }

    /** A machine that waits for somebody, or for a while in which somebody does something. */
    private void meets(double seconds, Optional<Double> wait) throws IOException {
        Optional<BlockStamp> block = blocks.get(wire.oldest());
        Optional<Stops.Duty> duty = wait.isPresent() ? stops.inWait(block, wait.get()) : stops.next(block);
        if (wait.isPresent() && duty.isEmpty()) {
            hand("go");
            return;
        }
        Encounter stop = encounter(duty, seconds);
        Deed deed = work(stop, duty);
        double lasted = wait.isPresent() ? wait.get() : clock() - seconds;
        hand("go");
        note(stop, deed, lasted);
    }

    private Encounter encounter(Optional<Stops.Duty> duty, double seconds) {
        return duty.map(d -> d.encounter(wire.sent(), seconds))
                .orElseGet(() -> new Encounter(
                        Optional.empty(), 0, witness.layer(), wire.sent(), seconds, Optional.empty(), List.of()));
    }

    private Deed work(Encounter stop, Optional<Stops.Duty> duty) throws IOException {
        watcher.meets(stop);
        Deed deed = person.apply(stop);
        serve(stop, duty, deed);
        return deed;
    }

    private double clock() throws IOException {
        return Double.parseDouble(hand("clock").split(" ")[1]);
    }

    private void note(Encounter stop, Deed deed, double lasted) {
        if (stopped.size() < MOST_STOPS) {
            stopped.add(new Report.Stopped(stop, stop.wanted().isPresent() ? deed.puts() : Optional.empty(), lasted));
        }
        if (stop.what().isEmpty()) {
            trouble("The file stops where the plan has no stop.");
        }
    }

    /** What the hands do there, in its order. */
    private void serve(Encounter stop, Optional<Stops.Duty> duty, Deed deed) throws IOException {
        double usual = duty.map(Stops.Duty::personSeconds).orElse(0.0);
        hand(Words.format("wait %.1f", usual + deed.late().toMillis() / 1000.0));
        if (stop.wanted().isPresent() && deed.puts().isPresent()) {
            int filament = filaments.indexOf(deed.puts().get());
            OptionalInt input = duty.get().input();
            if (input.isPresent()) {
                does("input " + input.getAsInt() + " " + filament);
            } else {
                does("out");
                does("in " + filament + (duty.get().toTheGears() ? " gears" : " nozzle"));
            }
            if (deed.pushes() && duty.get().push() > 0) {
                does(Words.format("push %.3f", duty.get().push()));
            }
        }
        Optional<Stops.Refill> refill = duty.flatMap(Stops.Duty::refill);
        if (refill.isPresent()) {
            put(refill.get().slot(), refill.get().spool());
        }
    }

    private void does(String deed) throws IOException {
        String answered = hand(deed);
        if (answered.startsWith("cannot: ")) {
            trouble("At a stop, " + answered.substring(8) + ".");
        }
    }

    private String hand(String does) throws IOException {
        return device.hand(does);
    }

    /** The host keeps the line, runs its script, lets somebody work, and runs the other. */
    private void hostPauses() throws IOException {
        wire.drain();
        Optional<Stops.Duty> duty = stops.next(stops.block());
        ControllerState here = controller.state();
        Moment moment = duty.map(Stops.Duty::moment).orElseGet(() -> facts.rig().typical(Event.HALT, 0));
        Optional<HostScripts> scripts = HostScripts.running(facts.rig().macros(), facts.printer(), moment.at(here));
        double seconds = clock();
        if (scripts.isPresent()) {
            script(scripts.get().pause());
        }
        Encounter stop = encounter(duty, seconds);
        Deed deed = work(stop, duty);
        double lasted = clock() - seconds;
        if (scripts.isPresent()) {
            script(scripts.get().resume());
        }
        note(stop, deed, lasted);
    }

    private void script(List<RenderedLine> lines) throws IOException {
        byte[] text = HostScripts.text(lines).getBytes(StandardCharsets.US_ASCII);
        GcodeScanner scanner = new GcodeScanner(new ByteArrayInputStream(text), text.length + 2);
        while (!wire.isClosed() && scanner.next()) {
            boolean moves = controller.execute(scanner) == Controller.Effect.MOVE;
            post(scanner.code(), moves);
        }
        wire.drain();
    }
}
