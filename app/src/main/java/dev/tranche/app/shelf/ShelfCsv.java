package dev.tranche.app.shelf;

import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.speech.Letters;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/**
 * Spools from a table: the one that the shelf gives out, or another with columns of such names. Separated by commas, semicolons or
 * tabs; numbers with a point or a comma. Only a name and a colour are needed.
 */
final class ShelfCsv {
    private static final int MOST = 2_000;

    /** Columns by what their heads begin with. */
    private enum Column {
        NAME("name", "spool"),
        MATERIAL("material", "plastic"),
        COLOUR("colour", "color", "hex"),
        DENSITY("density"),
        PRICE("price", "cost"),
        FIRST("first"),
        TEMPERATURE("then", "temp", "nozzle"),
        LEFT("left", "grams", "weight", "remaining"),
        HIDES("hides", "cover");

        private final List<String> heads;

        Column(String... heads) {
            this.heads = List.of(heads);
        }

        boolean isHeadedBy(String head) {
            return heads.stream().anyMatch(head::startsWith);
        }
    }

    private ShelfCsv() {}

    /** @throws Refusal saying which line is wrong and how */
    static List<Spool> read(byte[] file) throws IOException {
        String table = Letters.of(file);
        char separator = separator(table.lines().findFirst().orElse(""));
        CSVFormat format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator)
                .setIgnoreEmptyLines(true)
                .setTrim(true)
                .get();
        List<Spool> spools = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(new StringReader(table), format)) {
            Map<Column, Integer> places = null;
            for (CSVRecord line : parser) {
                if (places == null) {
                    places = places(line);
                } else if (Arrays.stream(line.values()).anyMatch(v -> !v.isBlank())) {
                    spools.add(spool(line, places));
                }
                if (spools.size() > MOST) {
                    throw Refusal.of("The table holds over %d spools; give it in parts.", MOST);
                }
            }
        } catch (UncheckedIOException | IllegalStateException e) {
            throw new Refusal(
                    "That is no table that can be read: a quotation mark in it is not closed. Nothing was added.");
        }
        if (spools.isEmpty()) {
            throw new Refusal("The table holds no spools; it needs a line of heads, and a line for each spool.");
        }
        return spools;
    }

    private static char separator(String head) {
        long tabs = head.chars().filter(c -> c == '\t').count();
        long semicolons = head.chars().filter(c -> c == ';').count();
        long commas = head.chars().filter(c -> c == ',').count();
        return tabs >= semicolons && tabs >= commas && tabs > 0
                ? '\t'
                : semicolons > 0 && semicolons >= commas ? ';' : ',';
    }

    private static Map<Column, Integer> places(CSVRecord heads) {
        Map<Column, Integer> places = new HashMap<>();
        for (int i = 0; i < heads.size(); i++) {
            String head = heads.get(i).toLowerCase(Locale.ROOT);
            int at = i;
            Arrays.stream(Column.values())
                    .filter(c -> c.isHeadedBy(head))
                    .findFirst()
                    .ifPresent(c -> places.putIfAbsent(c, at));
        }
        if (!places.containsKey(Column.NAME) || !places.containsKey(Column.COLOUR)) {
            throw new Refusal("The table's first line has to name its columns, Name and Colour at least.");
        }
        return places;
    }

    private static Spool spool(CSVRecord line, Map<Column, Integer> places) {
        try {
            String price = value(line, places, Column.PRICE);
            String left = value(line, places, Column.LEFT);
            return new SpoolForm(
                            plain(value(line, places, Column.NAME)),
                            material(value(line, places, Column.MATERIAL)),
                            plain(value(line, places, Column.COLOUR)),
                            value(line, places, Column.DENSITY),
                            price.isEmpty() ? "20" : price,
                            value(line, places, Column.FIRST),
                            value(line, places, Column.TEMPERATURE),
                            left.isEmpty() ? "1000" : left,
                            value(line, places, Column.HIDES))
                    .spool(new SpoolId(0));
        } catch (Refusal refusal) {
            throw Refusal.of(
                    "Row %d of the table: %s Nothing was added.", line.getRecordNumber(), refusal.getMessage());
        }
    }

    private static String value(CSVRecord line, Map<Column, Integer> places, Column column) {
        Integer at = places.get(column);
        return at == null || at >= line.size() ? "" : line.get(at);
    }

    /** Without the mark that keeps spreadsheets from taking it for a formula. */
    private static String plain(String text) {
        return text.startsWith("'") ? text.substring(1) : text;
    }

    private static Material material(String text) {
        if (text.isEmpty()) {
            return Material.PLA;
        }
        return Arrays.stream(Material.values())
                .filter(m -> m.name().equalsIgnoreCase(text) || m.title().equalsIgnoreCase(text))
                .findFirst()
                .orElseThrow(() -> Refusal.of(
                        "“%s” is not a material Tranche knows; it knows %s.",
                        Words.quoted(text),
                        String.join(
                                ", ",
                                Arrays.stream(Material.values())
                                        .map(Material::title)
                                        .toList())));
    }
}
