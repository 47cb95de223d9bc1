package dev.tranche.app.plans;

import dev.tranche.core.geometry.Shift;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * What a plan says of its model's parts beside their colours.
 *
 * @param notes by the number of the part, from 0; parts without one are as their file has them
 */
public record PartNotes(Map<Integer, Note> notes) {
    public static final PartNotes NONE = new PartNotes(Map.of());

    private static final int LONGEST = 60;

    /**
     * @param name in place of the file's, empty to keep that
     * @param hidden left out of the print
     * @param group it is listed with, empty for none
     * @param shift from where its file has it
     */
    public record Note(String name, boolean hidden, String group, Shift shift) {
        static final Note NOTHING = new Note("", false, "", Shift.NONE);

        public Note {
            name = line(name, "part");
            group = line(group, "group");
        }

        private static String line(String text, String what) {
            String line = Words.oneLine(text);
            if (line.length() > LONGEST) {
                throw Refusal.of(
                        "A %s's name of %d letters is too long; %d are allowed.", what, line.length(), LONGEST);
            }
            return line;
        }
    }

    public PartNotes {
        notes = Map.copyOf(notes);
    }

    public Note of(int part) {
        return notes.getOrDefault(part, Note.NOTHING);
    }

    /** Numbers of the parts that are left out. */
    public Set<Integer> hidden() {
        return notes.entrySet().stream()
                .filter(e -> e.getValue().hidden())
                .map(Map.Entry::getKey)
                .collect(Collectors.toUnmodifiableSet());
    }

    public PartNotes naming(int part, String name) {
        return with(part, new Note(name, of(part).hidden(), of(part).group(), of(part).shift()));
    }

    public PartNotes hiding(Set<Integer> parts, boolean hide) {
        PartNotes changed = this;
        for (int part : parts) {
            changed = changed.with(part, new Note(of(part).name(), hide, of(part).group(), of(part).shift()));
        }
        return changed;
    }

    public PartNotes grouping(Set<Integer> parts, String group) {
        PartNotes changed = this;
        for (int part : parts) {
            changed = changed.with(part, new Note(of(part).name(), of(part).hidden(), group, of(part).shift()));
        }
        return changed;
    }

    /** With some parts moved from where their files have them. */
    public PartNotes moving(Map<Integer, Shift> shifts) {
        PartNotes changed = this;
        for (Map.Entry<Integer, Shift> e : shifts.entrySet()) {
            Note now = of(e.getKey());
            changed = changed.with(e.getKey(), new Note(now.name(), now.hidden(), now.group(), e.getValue()));
        }
        return changed;
    }

    /** With all parts where their files have them. */
    public PartNotes asInTheirFiles() {
        return moving(shifts().keySet().stream().collect(Collectors.toMap(p -> p, p -> Shift.NONE)));
    }

    /** With what is moved moved along, where the model is scaled by that factor and turned by so many degrees. */
    PartNotes along(double factor, double degrees) {
        return moving(shifts().entrySet().stream()
                .collect(Collectors.toMap(Map.Entry::getKey, e -> e.getValue().along(factor, degrees))));
    }

    /** Parts that are moved, by number. */
    public Map<Integer, Shift> shifts() {
        return notes.entrySet().stream()
                .filter(e -> !e.getValue().shift().equals(Shift.NONE))
                .collect(Collectors.toUnmodifiableMap(
                        Map.Entry::getKey, e -> e.getValue().shift()));
    }

    private PartNotes with(int part, Note note) {
        Map<Integer, Note> changed = new TreeMap<>(notes);
        if (note.equals(Note.NOTHING)) {
            changed.remove(part);
        } else {
            changed.put(part, note);
        }
        return new PartNotes(changed);
    }
}
