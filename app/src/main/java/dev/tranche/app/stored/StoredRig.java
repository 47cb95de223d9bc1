package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import dev.tranche.core.machine.Abilities;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.machine.Corner;
import dev.tranche.core.machine.Dialect;
import dev.tranche.core.machine.Head;
import dev.tranche.core.machine.Hotend;
import dev.tranche.core.machine.Lever;
import dev.tranche.core.machine.Motion;
import dev.tranche.core.machine.OwnLine;
import dev.tranche.core.machine.Pace;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.machine.Selector;
import dev.tranche.core.machine.Travel;
import dev.tranche.core.rig.Blend;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.rig.VirtualExtruder;
import java.time.Duration;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;

/** A printer set up for swapping. */
public record StoredRig(Machine printer, Extruders rack, StoredMacros macros) {

    public static StoredRig of(Rig r) {
        return new StoredRig(Machine.of(r.printer()), Extruders.of(r.rack()), StoredMacros.of(r.macros()));
    }

    public Rig rig() {
        return new Rig(printer.printer(), rack.rack(), macros.book());
    }

    /** How far the nozzle goes. */
    record Reach(double minX, double maxX, double minY, double maxY) {

        static Reach of(Travel t) {
            return new Reach(t.minX(), t.maxX(), t.minY(), t.maxY());
        }

        public Travel travel() {
            return new Travel(minX, maxX, minY, maxY);
        }
    }

    /** A hot end. */
    record Heater(
            double nozzle,
            int inputs,
            int hottest,
            Duration heaterLimit,
            CubicMillimetres deadVolume,
            double reach,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<StoredHead> head) {

        static Heater of(Hotend h) {
            return new Heater(
                    h.nozzle(),
                    h.inputs(),
                    h.hottest(),
                    h.heaterLimit(),
                    CubicMillimetres.of(h.deadVolume()),
                    h.reach(),
                    Optional.of(h.head())
                            .filter(head -> !head.equals(Head.COMMON))
                            .map(StoredHead::of));
        }

        public Hotend hotend() {
            return new Hotend(
                    nozzle,
                    inputs,
                    hottest,
                    heaterLimit,
                    deadVolume.volume(),
                    reach,
                    head.map(StoredHead::head).orElse(Head.COMMON));
        }
    }

    /** What hangs round the nozzle, mm, if somebody has measured it. */
    record StoredHead(double radius, double height) {
        static StoredHead of(Head head) {
            return new StoredHead(head.radius(), head.height());
        }

        Head head() {
            return new Head(radius, height);
        }
    }

    /** The switch of a selector box. */
    record Switch(
            String axis,
            double position,
            double travel,
            boolean atHomingEnd,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> across) {

        static Switch of(Lever l) {
            return new Switch(
                    l.axis().name(),
                    l.position(),
                    l.travel(),
                    l.atHomingEnd(),
                    l.across().isPresent() ? Optional.of(l.across().getAsDouble()) : Optional.empty());
        }

        public Lever lever() {
            return new Lever(
                    Axis.valueOf(axis),
                    position,
                    travel,
                    atHomingEnd,
                    across.map(OptionalDouble::of).orElseGet(OptionalDouble::empty));
        }
    }

    /** A selector box. */
    record Box(Switch lever, double holdSeconds, List<Integer> presses) {

        static Box of(Selector s) {
            return new Box(Switch.of(s.lever()), s.holdSeconds(), s.presses());
        }

        public Selector selector() {
            return new Selector(lever.lever(), holdSeconds, presses);
        }
    }

    /** How it moves. */
    record Speeds(
            double travelSpeed,
            double printSpeed,
            double liftSpeed,
            double retractSpeed,
            double acceleration,
            double junctionDeviation,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Times> pace) {

        static Speeds of(Motion m) {
            return new Speeds(
                    m.travelSpeed(),
                    m.printSpeed(),
                    m.liftSpeed(),
                    m.retractSpeed(),
                    m.acceleration(),
                    m.junctionDeviation(),
                    Optional.of(m.pace())
                            .filter(p -> !p.equals(Pace.AS_RECKONED))
                            .map(p -> new Times(p.fromModel(), p.fromFile())));
        }

        public Motion motion() {
            return new Motion(
                    travelSpeed,
                    printSpeed,
                    liftSpeed,
                    retractSpeed,
                    acceleration,
                    junctionDeviation,
                    pace.map(p -> new Pace(p.fromModel(), p.fromFile())).orElse(Pace.AS_RECKONED));
        }
    }

    /** How many times as long as reckoned it takes. */
    record Times(double fromModel, double fromFile) {}

    /** What its firmware, and the host before it, understand: for each command the letters it honours. */
    record Firmware(
            Map<String, List<String>> honoured,
            List<String> pausesHost,
            boolean commentsAfterCommands,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<String> filament,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<List<String>> stopLines,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<List<String>> toolLines) {
        static Firmware of(Abilities a) {
            Map<String, List<String>> honoured = new LinkedHashMap<>();
            a.honoured()
                    .forEach((command, letters) -> honoured.put(
                            command.name(),
                            letters.stream().map(String::valueOf).toList()));
            return new Firmware(
                    honoured,
                    a.pausesHost().stream().map(Command::name).toList(),
                    a.commentsAfterCommands(),
                    Optional.of(a.dialect().filament())
                            .filter(f -> f != Dialect.Counting.NOT_SAID)
                            .map(Dialect.Counting::name),
                    texts(a.dialect().stops()),
                    texts(a.dialect().tools()));
        }

        private static Optional<List<String>> texts(List<OwnLine> lines) {
            return Optional.of(lines.stream().map(OwnLine::text).toList()).filter(l -> !l.isEmpty());
        }

        private static List<OwnLine> lines(Optional<List<String>> texts) {
            return texts.orElse(List.of()).stream().map(OwnLine::new).toList();
        }

        private static char letter(String text) {
            if (text.length() != 1) {
                throw new IllegalArgumentException("“" + text + "” is no letter of a command");
            }
            return text.charAt(0);
        }

        public Abilities abilities() {
            Map<Command, Set<Character>> understood = new EnumMap<>(Command.class);
            honoured.forEach((command, letters) -> understood.put(
                    Command.valueOf(command),
                    letters.stream().map(Firmware::letter).collect(Collectors.toSet())));
            return new Abilities(
                    understood,
                    pausesHost.stream().map(Command::valueOf).collect(Collectors.toSet()),
                    commentsAfterCommands,
                    new Dialect(
                            filament.map(Dialect.Counting::valueOf).orElse(Dialect.Counting.NOT_SAID),
                            lines(stopLines),
                            lines(toolLines)));
        }
    }

    /** A printer. */
    record Machine(
            String name,
            StoredBed bed,
            Reach travel,
            Micrometres maxHeight,
            String home,
            Heater hotend,
            Diameter filament,
            StoredDrive drive,
            Optional<Spot> parkSpot,
            Optional<Box> selector,
            Speeds motion,
            Firmware abilities,
            double watts) {

        static Machine of(Printer p) {
            return new Machine(
                    p.name(),
                    StoredBed.of(p.bed()),
                    Reach.of(p.travel()),
                    Micrometres.of(p.maxHeight()),
                    p.home().name(),
                    Heater.of(p.hotend()),
                    Diameter.of(p.filament()),
                    StoredDrive.of(p.drive()),
                    p.parkSpot().map(Spot::of),
                    p.selector().map(Box::of),
                    Speeds.of(p.motion()),
                    Firmware.of(p.abilities()),
                    p.watts());
        }

        public Printer printer() {
            return new Printer(
                    name,
                    bed.bed(),
                    travel.travel(),
                    maxHeight.height(),
                    Corner.valueOf(home),
                    hotend.hotend(),
                    filament.filament(),
                    drive.drive(),
                    parkSpot.map(Spot::point),
                    selector.map(Box::selector),
                    motion.motion(),
                    abilities.abilities(),
                    watts);
        }
    }

    /** A blend. */
    record Mix(List<Double> weights) {

        static Mix of(Blend b) {
            return new Mix(b.weights());
        }

        public Blend blend() {
            return new Blend(weights);
        }
    }

    /** A virtual extruder. */
    record Extruder(
            Optional<SpoolNumber> spool,
            int firstLayerTemperature,
            int temperature,
            int standby,
            double liftOnRetract,
            double nozzle,
            double filament,
            Spot offset,
            Optional<Mix> blend) {

        static Extruder of(VirtualExtruder v) {
            return new Extruder(
                    v.spool().map(SpoolNumber::of),
                    v.firstLayerTemperature(),
                    v.temperature(),
                    v.standby(),
                    v.liftOnRetract(),
                    v.nozzle(),
                    v.filament(),
                    Spot.of(v.offset()),
                    v.blend().map(Mix::of));
        }

        public VirtualExtruder extruder() {
            return new VirtualExtruder(
                    spool.map(SpoolNumber::id),
                    firstLayerTemperature,
                    temperature,
                    standby,
                    liftOnRetract,
                    nozzle,
                    filament,
                    offset.point(),
                    blend.map(Mix::blend));
        }
    }

    /** The virtual extruders, and what is at the inputs of a nozzle that blends. */
    record Extruders(
            List<Extruder> extruders, @JsonSetter(contentNulls = Nulls.SET) List<Optional<SpoolNumber>> inputs) {
        static Extruders of(Rack r) {
            return new Extruders(
                    r.extruders().stream().map(Extruder::of).toList(),
                    r.inputs().stream().map(i -> i.map(SpoolNumber::of)).toList());
        }

        public Rack rack() {
            return new Rack(
                    extruders.stream().map(Extruder::extruder).toList(),
                    inputs.stream().map(i -> i.map(SpoolNumber::id)).toList());
        }
    }
}
