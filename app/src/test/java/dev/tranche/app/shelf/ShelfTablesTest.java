package dev.tranche.app.shelf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.tranche.app.support.BrowserTest;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The shelf as a table: sorted, filtered, out as CSV and in again. */
class ShelfTablesTest extends BrowserTest {
    private List<String> names() {
        return browser.until(() -> browser.all("#spools tbody tr:not([hidden]) input[name=name]").stream()
                .map(e -> e.getDomProperty("value"))
                .toList());
    }

    @Test
    void a_table_from_elsewhere_is_taken_in_whatever_separates_it() throws IOException {
        List<Spool> spools = read("\ufeffSpool;Color;Material;Density;Price a kg;Left, g\r\n"
                + "\"Moss; dark\";dark green;PETG;1,27;24,90;730\r\n\r\nBone;#EEE;;;;\r\n");
        assertThat(spools).extracting(Spool::name).containsExactly("Moss; dark", "Bone");
        assertThat(spools.get(0).material()).isEqualTo(Material.PETG);
        assertThat(spools.get(0).density()).isEqualTo(1.27);
        assertThat(spools.get(0).gramsLeft()).isEqualTo(730);
        assertThat(spools.get(1).colour().hex()).isEqualTo("#EEEEEE");
        assertThat(read("name\tcolour\nSea\tteal\n").get(0).colour().hex()).isEqualTo("#008080");
    }

    private static List<Spool> read(String table) throws IOException {
        return ShelfCsv.read(table.getBytes(StandardCharsets.UTF_8));
    }

    @ParameterizedTest
    @ValueSource(strings = {"UTF-8", "windows-1252", "UTF-16"})
    void names_of_spools_keep_their_letters_however_a_spreadsheet_writes_them(Charset charset) throws IOException {
        String table = "name\tcolour\tprice in \u20AC\nMeergr\u00FCn\tteal\t20\n";
        assertThat(ShelfCsv.read(table.getBytes(charset)).get(0).name()).isEqualTo("Meergr\u00FCn");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "name,price ¶Sea,3|Name and Colour at least",
                "name,colour|holds no spools",
                "name,colour¶Sea,teal¶Mud,muddy|Row 3 of the table: “muddy” is not a colour",
                "name,colour,material¶Sea,teal,cheese|“cheese” is not a material",
                "name,colour,left¶Sea,teal,many|“many” is not a number",
                "name,colour¶\"Sea,teal|not closed"
            })
    void what_cannot_be_read_is_said_with_its_row_and_nothing_is_added(String table, String sentence) {
        assertThatThrownBy(() -> read(table.replace("¶", "\n")))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(sentence);
    }

    @Test
    void the_shelf_is_sorted_filtered_given_out_and_taken_in_again() throws IOException {
        Spool like = shelf.all().get(0);
        for (String name : List.of("Zircon", "Amber", "=Formula", "Mint", "Rust")) {
            shelf.add(named(like, name));
        }
        browser.open("/shelf");
        browser.click("th .sorts");
        browser.until(() -> names().indexOf("Amber") < names().indexOf("Mint")
                && names().indexOf("Mint") < names().indexOf("Zircon"));
        browser.click("th .sorts");
        browser.until(() -> names().indexOf("Zircon") < names().indexOf("Amber"));
        assertThat(browser.find("th").getDomAttribute("aria-sort")).isEqualTo("descending");
        browser.type(".table-tools input", "formula");
        browser.until(() -> names().equals(List.of("=Formula")));
        browser.type(".table-tools input", " ");
        browser.click(".table-tools button:last-child");
        String csv = Files.readString(browser.download("shelf.csv"), StandardCharsets.UTF_8);
        List<CSVRecord> rows =
                CSVFormat.DEFAULT.parse(new StringReader(csv.substring(1))).getRecords();
        assertThat(rows.get(0).get(0)).isEqualTo("Name");
        assertThat(rows).hasSize(shelf.all().size() + 1);
        assertThat(rows).extracting(r -> r.get(0)).contains("'=Formula", "Zircon");

        for (String name : List.of("Zircon", "=Formula")) {
            shelf.remove(shelf.all().stream()
                    .filter(s -> s.name().equals(name))
                    .findFirst()
                    .orElseThrow()
                    .id());
        }
        browser.open("/shelf");
        give("#table-file", file("again.csv", csv.getBytes(StandardCharsets.UTF_8)));
        browser.see("#taken", "2 spools were added.");
        assertThat(browser.text("#taken")).contains("on the shelf already");
        assertThat(shelf.all()).extracting(Spool::name).contains("Zircon", "=Formula");
        Spool zircon = shelf.all().stream()
                .filter(s -> s.name().equals("Zircon"))
                .findFirst()
                .orElseThrow();
        assertThat(zircon.colour()).isEqualTo(like.colour());
        assertThat(zircon.temperature()).isEqualTo(like.temperature());
    }
}
