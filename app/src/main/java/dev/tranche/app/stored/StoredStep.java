package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.tranche.core.machine.Axis;
import dev.tranche.core.machine.Command;
import dev.tranche.core.macro.HeatFor;
import dev.tranche.core.macro.Step;
import java.util.Optional;
import java.util.OptionalDouble;

/** A step of a macro. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = StoredStep.Tone.class, name = "Tone"),
    @JsonSubTypes.Type(value = StoredStep.Message.class, name = "Message"),
    @JsonSubTypes.Type(value = StoredStep.Retract.class, name = "Retract"),
    @JsonSubTypes.Type(value = StoredStep.Lift.class, name = "Lift"),
    @JsonSubTypes.Type(value = StoredStep.Unload.class, name = "Unload"),
    @JsonSubTypes.Type(value = StoredStep.Load.class, name = "Load"),
    @JsonSubTypes.Type(value = StoredStep.Cut.class, name = "Cut"),
    @JsonSubTypes.Type(value = StoredStep.WaitForPerson.class, name = "WaitForPerson"),
    @JsonSubTypes.Type(value = StoredStep.Dwell.class, name = "Dwell"),
    @JsonSubTypes.Type(value = StoredStep.Heat.class, name = "Heat"),
    @JsonSubTypes.Type(value = StoredStep.Prime.class, name = "Prime"),
    @JsonSubTypes.Type(value = StoredStep.Purge.class, name = "Purge"),
    @JsonSubTypes.Type(value = StoredStep.Wipe.class, name = "Wipe"),
    @JsonSubTypes.Type(value = StoredStep.FirmwareRoutine.class, name = "FirmwareRoutine"),
    @JsonSubTypes.Type(value = StoredStep.OwnPause.class, name = "OwnPause"),
    @JsonSubTypes.Type(value = StoredStep.Home.class, name = "Home"),
    @JsonSubTypes.Type(value = StoredStep.SetHeat.class, name = "SetHeat"),
    @JsonSubTypes.Type(value = StoredStep.Raw.class, name = "Raw"),
    @JsonSubTypes.Type(value = StoredStep.Park.class, name = "Park"),
    @JsonSubTypes.Type(value = StoredStep.PressSwitch.class, name = "PressSwitch"),
    @JsonSubTypes.Type(value = StoredStep.SelectExtruder.class, name = "SelectExtruder"),
    @JsonSubTypes.Type(value = StoredStep.Cool.class, name = "Cool"),
    @JsonSubTypes.Type(value = StoredStep.WaitForMoves.class, name = "WaitForMoves"),
    @JsonSubTypes.Type(value = StoredStep.Return.class, name = "Return")
})
sealed interface StoredStep {
    Step step();

    static StoredStep of(Step value) {
        if (value instanceof Step.Tone known) {
            return new Tone(known.hertz(), known.milliseconds());
        }
        if (value instanceof Step.Message known) {
            return new Message(known.text());
        }
        if (value instanceof Step.Retract known) {
            return new Retract(known.length());
        }
        if (value instanceof Step.Lift known) {
            return new Lift(known.height());
        }
        if (value instanceof Step.Unload known) {
            return new Unload(known.extra(), known.speed());
        }
        if (value instanceof Step.Load known) {
            return new Load(known.extra(), known.speed());
        }
        if (value instanceof Step.Cut known) {
            return new Cut(known.axis().name(), known.position(), known.travel());
        }
        if (value instanceof Step.WaitForPerson known) {
            return new WaitForPerson(known.by().name());
        }
        if (value instanceof Step.Dwell known) {
            return new Dwell(known.seconds());
        }
        if (value instanceof Step.Heat known) {
            return new Heat(known.to().name());
        }
        if (value instanceof Step.Prime known) {
            return new Prime(known.length(), known.speed());
        }
        if (value instanceof Step.Purge known) {
            return new Purge(known.speed());
        }
        if (value instanceof Step.Wipe known) {
            return new Wipe(known.axis().name(), known.width(), known.strokes());
        }
        if (value instanceof Step.FirmwareRoutine known) {
            return FirmwareRoutine.of(known);
        }
        if (value instanceof Step.OwnPause known) {
            return new OwnPause(known.line());
        }
        if (value instanceof Step.Home known) {
            return new Home(known.axes().name());
        }
        if (value instanceof Step.SetHeat known) {
            return new SetHeat(known.to().name());
        }
        if (value instanceof Step.Raw known) {
            return new Raw(known.lines());
        }
        if (value instanceof Step.Park) {
            return new Park();
        }
        if (value instanceof Step.PressSwitch) {
            return new PressSwitch();
        }
        if (value instanceof Step.SelectExtruder) {
            return new SelectExtruder();
        }
        if (value instanceof Step.Cool) {
            return new Cool();
        }
        if (value instanceof Step.WaitForMoves) {
            return new WaitForMoves();
        }
        return new Return();
    }

    record Tone(int hertz, int milliseconds) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Tone(hertz, milliseconds);
        }
    }

    record Message(String text) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Message(text);
        }
    }

    record Retract(double length) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Retract(length);
        }
    }

    record Lift(double height) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Lift(height);
        }
    }

    record Unload(double extra, double speed) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Unload(extra, speed);
        }
    }

    record Load(double extra, double speed) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Load(extra, speed);
        }
    }

    record Cut(String axis, double position, double travel) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Cut(Axis.valueOf(axis), position, travel);
        }
    }

    record WaitForPerson(String by) implements StoredStep {
        @Override
        public Step step() {
            return new Step.WaitForPerson(Command.valueOf(by));
        }
    }

    record Dwell(int seconds) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Dwell(seconds);
        }
    }

    record Heat(String to) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Heat(HeatFor.valueOf(to));
        }
    }

    record Prime(double length, double speed) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Prime(length, speed);
        }
    }

    record Purge(double speed) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Purge(speed);
        }
    }

    record Wipe(String axis, double width, int strokes) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Wipe(Axis.valueOf(axis), width, strokes);
        }
    }

    /** Numbers that are the printer's own are left out. */
    record FirmwareRoutine(
            String before,
            String after,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> x,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> y,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> lift,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> retraction,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> out,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> in,
            @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Double> speed)
            implements StoredStep {
        static FirmwareRoutine of(Step.FirmwareRoutine r) {
            return new FirmwareRoutine(
                    r.before(),
                    r.after(),
                    boxed(r.x()),
                    boxed(r.y()),
                    boxed(r.lift()),
                    boxed(r.retraction()),
                    boxed(r.out()),
                    boxed(r.in()),
                    boxed(r.speed()));
        }

        private static Optional<Double> boxed(OptionalDouble number) {
            return number.isPresent() ? Optional.of(number.getAsDouble()) : Optional.empty();
        }

        private static OptionalDouble number(Optional<Double> stored) {
            return stored.map(OptionalDouble::of).orElseGet(OptionalDouble::empty);
        }

        @Override
        public Step step() {
            return new Step.FirmwareRoutine(
                    before,
                    after,
                    number(x),
                    number(y),
                    number(lift),
                    number(retraction),
                    number(out),
                    number(in),
                    number(speed));
        }
    }

    record OwnPause(String line) implements StoredStep {
        @Override
        public Step step() {
            return new Step.OwnPause(line);
        }
    }

    record Home(String axes) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Home(Step.Home.Axes.valueOf(axes));
        }
    }

    record SetHeat(String to) implements StoredStep {
        @Override
        public Step step() {
            return new Step.SetHeat(HeatFor.valueOf(to));
        }
    }

    record Raw(String lines) implements StoredStep {
        @Override
        public Step step() {
            return new Step.Raw(lines);
        }
    }

    record Park() implements StoredStep {
        @Override
        public Step step() {
            return new Step.Park();
        }
    }

    record PressSwitch() implements StoredStep {
        @Override
        public Step step() {
            return new Step.PressSwitch();
        }
    }

    record SelectExtruder() implements StoredStep {
        @Override
        public Step step() {
            return new Step.SelectExtruder();
        }
    }

    record Cool() implements StoredStep {
        @Override
        public Step step() {
            return new Step.Cool();
        }
    }

    record WaitForMoves() implements StoredStep {
        @Override
        public Step step() {
            return new Step.WaitForMoves();
        }
    }

    record Return() implements StoredStep {
        @Override
        public Step step() {
            return new Step.Return();
        }
    }
}
