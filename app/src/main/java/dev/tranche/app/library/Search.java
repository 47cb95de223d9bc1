package dev.tranche.app.library;

import dev.tranche.app.plans.Plans.Listed;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;

/**
 * Which plans are wanted, and in what order.
 *
 * @param q words, each of which is part of the plan's name, of a tag, or of the name of a spool or of the printer
 * @param sort what comes first
 * @param page from 1
 */
record Search(String q, Sort sort, Integer page) {
    static final int ON_A_PAGE = 24;

    Search {
        q = q == null ? "" : q.strip();
        sort = sort == null ? Sort.TOUCHED : sort;
        page = page == null ? 1 : Math.max(1, page);
    }

    /** What comes first. */
    enum Sort {
        TOUCHED("last touched"),
        NAME("name"),
        SWAPS("most swaps"),
        TIME("longest print");

        private final String title;

        Sort(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** What a plan is sorted by that only its card knows. */
    record Figures(int swaps, double seconds) {
        static final Figures UNKNOWN = new Figures(-1, -1);
    }

    /** The plans that are meant, from whichever page. */
    List<Listed> in(List<Listed> plans, Function<Listed, String> words, Map<String, Figures> figures) {
        String[] wanted = q.toLowerCase(Locale.ROOT).split("\\s+");
        return plans.stream()
                .filter(p -> holds(words.apply(p).toLowerCase(Locale.ROOT), wanted))
                .sorted(order(figures))
                .toList();
    }

    private static boolean holds(String text, String[] wanted) {
        for (String word : wanted) {
            if (!text.contains(word)) {
                return false;
            }
        }
        return true;
    }

    private Comparator<Listed> order(Map<String, Figures> figures) {
        Function<Listed, Figures> of = p -> figures.getOrDefault(p.id(), Figures.UNKNOWN);
        return switch (sort) {
            case TOUCHED -> Comparator.comparing(Listed::changed).reversed();
            case NAME -> Comparator.comparing(Listed::name, String.CASE_INSENSITIVE_ORDER);
            case SWAPS -> Comparator.comparingInt((Listed p) -> of.apply(p).swaps())
                    .reversed();
            case TIME -> Comparator.comparingDouble((Listed p) -> of.apply(p).seconds())
                    .reversed();
        };
    }
}
