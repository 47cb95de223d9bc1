package dev.tranche.core.rig;

import dev.tranche.core.plan.SpoolId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Which spool is in which virtual extruder as a print goes on. There may be more spools than extruders: two can
 * alternate through five, because a person swaps them. A spool goes to the extruder that holds it; else to one
 * that is empty or whose spool is needed latest again, and never to the one that prints if there is another
 * (Belady, "A study of replacement algorithms for a virtual-storage computer", IBM Systems Journal 5, 1966).
 *
 * @param stages the first load, then one a swap
 */
public record Loading(List<Stage> stages) {
    public Loading {
        stages = List.copyOf(stages);
    }

    /**
     * What is where once a spool is in.
     *
     * @param extruder that prints from here on
     * @param contents one an extruder
     * @param fresh whether the spool had to be put into the extruder
     * @param replaced what had been in there, and came out for it
     */
    public record Stage(int extruder, List<Optional<SpoolId>> contents, boolean fresh, Optional<SpoolId> replaced) {
        public Stage {
            contents = List.copyOf(contents);
        }
    }

    /**
     * @param sequence spools in the order of printing, the first load first
     */
    public static Loading of(Rack rack, List<SpoolId> sequence) {
        List<Optional<SpoolId>> contents = new ArrayList<>();
        for (VirtualExtruder e : rack.extruders()) {
            contents.add(e.spool().filter(sequence::contains));
        }
        List<Stage> stages = new ArrayList<>();
        int printing = -1;
        for (int i = 0; i < sequence.size(); i++) {
            SpoolId spool = sequence.get(i);
            int at = contents.indexOf(Optional.of(spool));
            boolean fresh = at < 0;
            Optional<SpoolId> replaced = Optional.empty();
            if (fresh) {
                at = place(contents, sequence.subList(i, sequence.size()), printing);
                replaced = contents.get(at);
                contents.set(at, Optional.of(spool));
            }
            printing = at;
            stages.add(new Stage(at, contents, fresh, replaced));
        }
        return new Loading(stages);
    }

    private static int place(List<Optional<SpoolId>> contents, List<SpoolId> ahead, int printing) {
        int best = -1;
        int latest = -1;
        for (int t = 0; t < contents.size(); t++) {
            if (t == printing && contents.size() > 1) {
                continue;
            }
            int next = contents.get(t).map(ahead::indexOf).orElse(Integer.MAX_VALUE);
            int when = next < 0 ? Integer.MAX_VALUE - 1 : next;
            if (when > latest) {
                latest = when;
                best = t;
            }
        }
        return best;
    }
}
