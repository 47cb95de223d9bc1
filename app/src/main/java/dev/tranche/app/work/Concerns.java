package dev.tranche.app.work;

import dev.tranche.core.check.Finding;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The pages on which findings are looked at closely. */
@Component("concerns")
public class Concerns {
    /** Where that is, and what the link says. */
    public record Page(String address, String words) {}

    /** @return nothing where the desk itself shows it */
    public Optional<Page> page(Finding finding, Workpiece work) {
        String plan = "/plans/" + work.plan().id();
        String printer = "/printers/" + work.machine().id();
        return switch (finding.concern()) {
            case COLOURS -> Optional.empty();
            case ORDER -> Optional.of(new Page(plan + "/order", "Orders"));
            case PURGE -> Optional.of(new Page(plan + "/purge", "Purge"));
            case PLATE -> Optional.of(new Page(plan + "/plate", "Plate"));
            case CLOCK -> Optional.of(new Page(plan + "/clock", "Clock"));
            case FILE -> Optional.of(
                    new Page(plan + "/hand-off", finding.accepted() ? "Accepted at the hand-off" : "Hand-off"));
            case FIRMWARE -> Optional.of(new Page(printer + "/abilities", "Abilities of the printer"));
            case REHEARSAL -> Optional.of(new Page(plan + "/rehearse", "Rehearsal"));
            case MACROS -> Optional.of(new Page(printer + "/macros", "Macros of the printer"));
        };
    }
}
