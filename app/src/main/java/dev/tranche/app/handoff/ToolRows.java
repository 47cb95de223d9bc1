package dev.tranche.app.handoff;

import dev.tranche.app.pictures.SpoolMark;
import dev.tranche.app.web.Figures;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.sequence.ToolTable;
import dev.tranche.core.speech.Words;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The tools of a sliced file beside the spools of the plan. */
@Component
class ToolRows {
    private final Figures figures;

    ToolRows(Figures figures) {
        this.figures = figures;
    }

    /**
     * One tool.
     *
     * @param plastic that it lays, for people
     * @param layers it prints on, for people
     * @param turns the spools it stands for
     * @param chosen id of the spool that the owner gave it; 0 if it is as Tranche reads it
     */
    record Row(int number, String plastic, String layers, List<Turn> turns, long chosen) {}

    /** A spool, from a layer on. */
    record Turn(SpoolMark mark, int layer) {}

    List<Row> of(Workpiece work) {
        return work.tools().map(ToolTable::tools).orElse(List.of()).stream()
                .map(t -> new Row(
                        t.number(),
                        figures.length(t.filament()),
                        Words.layers(t.first(), t.last()),
                        t.turns().stream()
                                .map(turn -> new Turn(SpoolMark.of(work, turn.spool()), turn.layer()))
                                .toList(),
                        Optional.of(t)
                                .filter(ToolTable.Tool::chosen)
                                .map(c -> c.turns().isEmpty()
                                        ? 0L
                                        : c.turns().get(0).spool().value())
                                .orElse(0L)))
                .toList();
    }
}
