package dev.tranche.app.plate;

import dev.tranche.app.work.Workpiece;
import dev.tranche.core.geometry.Shift;
import java.util.List;
import java.util.stream.IntStream;

/** A part, and by how much it is moved from where its file has it. */
record PartPlace(int number, String name, Shift shift) {
    /** Of all that are printed, if there are several. */
    static List<PartPlace> of(Workpiece work) {
        List<PartPlace> parts = IntStream.range(0, work.partNames().size())
                .filter(i -> !work.cut().model().hidden().contains(i))
                .mapToObj(i -> new PartPlace(
                        i,
                        work.partNames().get(i),
                        work.plan().content().parts().of(i).shift()))
                .toList();
        return parts.size() > 1 ? parts : List.of();
    }
}
