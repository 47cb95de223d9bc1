package dev.tranche.app.stored;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.tranche.core.companion.Agenda;
import dev.tranche.core.companion.Visit;
import dev.tranche.core.estimate.BasePrint;
import dev.tranche.core.plan.SpoolId;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What a print was to stop for when it began. */
public record StoredAgenda(
        List<Stop> stops,
        double seconds,
        SpoolNumber first,
        List<Use> uses,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<Basis> basis,
        @JsonInclude(JsonInclude.Include.NON_EMPTY) Optional<SpoolNumber> endsWith) {
    public static final Format<Agenda, StoredAgenda> FORMAT =
            new Format<>(StoredAgenda.class, 1, StoredAgenda::of, StoredAgenda::agenda, agenda -> Set.of());

    static StoredAgenda of(Agenda a) {
        return new StoredAgenda(
                a.visits().stream().map(Stop::of).toList(),
                a.seconds(),
                SpoolNumber.of(a.first()),
                a.uses().stream().map(Use::of).toList(),
                a.basis().map(b -> new Basis(b.source().name(), b.pace())),
                a.endsWith().map(SpoolNumber::of));
    }

    public Agenda agenda() {
        return new Agenda(
                stops.stream().map(Stop::visit).toList(),
                seconds,
                first.id(),
                uses.stream().map(Use::use).toList(),
                basis.map(b -> new Agenda.Basis(BasePrint.Source.valueOf(b.source()), b.pace())),
                endsWith.map(SpoolNumber::id));
    }

    /** What its times were reckoned from. */
    record Basis(String source, double pace) {}

    /** One stop. */
    record Stop(
            String kind,
            int number,
            String place,
            String note,
            Optional<Long> out,
            Optional<Long> in,
            double purge,
            boolean byHand,
            String macro,
            double usual,
            double at,
            double before,
            double person,
            double after,
            List<Act> acts) {

        static Stop of(Visit v) {
            return new Stop(
                    v.kind().name(),
                    v.number(),
                    v.place(),
                    v.note(),
                    v.out().map(SpoolId::value),
                    v.in().map(SpoolId::value),
                    v.purge(),
                    v.byHand(),
                    v.macro(),
                    v.usual(),
                    v.spans().at(),
                    v.spans().before(),
                    v.spans().person(),
                    v.spans().after(),
                    v.acts().stream().map(a -> new Act(a.stop(), a.text())).toList());
        }

        Visit visit() {
            return new Visit(
                    Visit.Kind.valueOf(kind),
                    number,
                    place,
                    note,
                    out.map(SpoolId::new),
                    in.map(SpoolId::new),
                    purge,
                    byHand,
                    macro,
                    usual,
                    new Visit.Spans(at, before, person, after),
                    acts.stream().map(a -> new Visit.Act(a.stop(), a.text())).toList());
        }
    }

    /** A thing to do. */
    record Act(int stop, String text) {}

    /** What it takes of a spool, g. */
    record Use(SpoolNumber spool, String letter, double part, double purge) {
        static Use of(Agenda.Use u) {
            return new Use(SpoolNumber.of(u.spool()), String.valueOf(u.letter()), u.part(), u.purge());
        }

        Agenda.Use use() {
            return new Agenda.Use(spool.id(), letter.charAt(0), part, purge);
        }
    }
}
