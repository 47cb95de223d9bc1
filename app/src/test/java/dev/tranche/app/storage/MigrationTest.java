package dev.tranche.app.storage;

import static org.assertj.core.api.Assertions.assertThat;

import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.StoredPlan;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.core.macro.Step;
import dev.tranche.core.macro.SwapMethod;
import dev.tranche.core.rig.Rig;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import javax.sql.DataSource;
import org.flywaydb.core.Flyway;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.Test;

/** Data as the first version stored it comes through every migration. */
class MigrationTest {
    private static final String PRINTER =
            """
            {"name":"Old bench","bed":{"kind":"Rectangular","width":220.0,"depth":200.0},"maxHeight":{"micrometres":240000},\
            "nozzle":0.6,"filament":{"diameter":1.75},"drive":{"kind":"Tube","gearsToNozzle":420.0},\
            "parkSpot":{"x":10.0,"y":195.0},"heaterLimit":"PT30M","deadVolume":{"cubicMillimetres":71.0},\
            "motion":{"travelSpeed":120.0,"printSpeed":50.0,"liftSpeed":10.0,"acceleration":800.0,"junctionDeviation":0.02},\
            "abilities":{"honoured":{"M600":["L","U","X"],"M0":[],"M117":[],"G4":["S"]}}}""";

    private static final String MACRO =
            """
            {"method":"PAUSE_AND_PARK","steps":[{"kind":"Retract","length":3.5},{"kind":"Lift","height":7.0},{"kind":"Park"},\
            {"kind":"Tone","hertz":880,"milliseconds":300},{"kind":"Message"},{"kind":"WaitForPerson"},{"kind":"Heat"},\
            {"kind":"Purge","speed":2.5},{"kind":"Retract","length":3.5},{"kind":"Return"}]}""";

    private static final String PLAN =
            """
            {"colours":{"layers":{"firstLayer":{"micrometres":200},"layerHeight":{"micrometres":200}},\
            "starts":[{"wished":{"micrometres":0},"spool":{"value":1}}],"palette":[{"value":1}]},\
            "purge":{"tolerance":2.0,"factor":1.0},"printer":1}""";

    private static final String HASH = "ab".repeat(32);

    private final Json json = new Json();

    private static Flyway flyway(DataSource source, String target) {
        return Flyway.configure()
                .dataSource(source)
                .locations("classpath:db/migration")
                .javaMigrations(
                        new V3__RigsAndHalts(),
                        new V6__RegionsAndParts(),
                        new V8__OrdersAndCopies(),
                        new V13__FilesByRows())
                .target(target)
                .load();
    }

    @Test
    void a_printer_with_its_macro_and_a_plan_with_its_history_come_through() throws SQLException {
        JdbcDataSource source = new JdbcDataSource();
        source.setURL("jdbc:h2:mem:migration;DB_CLOSE_DELAY=-1");
        flyway(source, "1").migrate();
        try (Connection c = source.getConnection()) {
            insert(
                    c,
                    "insert into printer (printer, macro, purges, retired) values (?, ?, '[]', false)",
                    PRINTER,
                    MACRO);
            insert(
                    c,
                    "insert into plan (id, name, model_hash, model_name, model_size, created, changed, head, edition, deleted)"
                            + " values (?, 'Old', '" + HASH + "', 'm', 1, now(), now(), 1, 5, false)",
                    "abc");
            insert(
                    c,
                    "insert into plan_revision (plan_id, number, edition, label, content) values ('abc', 0, 0, 'the beginning', ?)",
                    PLAN);
            insert(
                    c,
                    "insert into plan_revision (plan_id, number, edition, label, content) values ('abc', 1, 5, 'an edit', ?)",
                    PLAN);
        }
        flyway(source, "latest").migrate();
        try (Connection c = source.getConnection()) {
            Rig rig = json.read(one(c, "select content from revision where owner = 'printer-1'"), StoredRig.class)
                    .rig();
            assertThat(rig.printer().name()).isEqualTo("Old bench");
            assertThat(rig.printer().nozzle()).isEqualTo(0.6);
            assertThat(rig.printer().deadVolume().cubicMillimetres()).isEqualTo(71);
            assertThat(rig.printer().heaterLimit().toMinutes()).isEqualTo(30);
            assertThat(rig.printer().travel().maxY()).isEqualTo(200);
            assertThat(rig.rack().disagreements(rig.printer())).isEmpty();
            assertThat(rig.macros().method()).isEqualTo(SwapMethod.PAUSE_AND_PARK);
            assertThat(rig.macros().macro(0).steps())
                    .extracting(s -> s.step())
                    .contains(new Step.Retract(3.5), new Step.Lift(7), new Step.Purge(2.5));
            assertThat(one(c, "select head || '/' || edition from history where owner = 'plan-abc'"))
                    .isEqualTo("1/5");
            assertThat(one(c, "select label from revision where owner = 'plan-abc' and number = 1"))
                    .isEqualTo("an edit");
            String content = one(c, "select content from revision where owner = 'plan-abc' and number = 1");
            PlanContent plan = json.read(content, StoredPlan.class).plan();
            assertThat(plan.colours().halts().list()).isEmpty();
            assertThat(plan.colours().regions().size()).isZero();
            assertThat(plan.files()).containsExactly(new ModelFile(HASH, "m", 1));
            assertThat(one(c, "select count(*) from revision_file where hash = '" + HASH + "'"))
                    .isEqualTo("2");
        }
    }

    private static void insert(Connection c, String sql, String... values) throws SQLException {
        try (PreparedStatement s = c.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                s.setString(i + 1, values[i]);
            }
            s.executeUpdate();
        }
    }

    private static String one(Connection c, String query) throws SQLException {
        try (Statement s = c.createStatement();
                ResultSet rows = s.executeQuery(query)) {
            rows.next();
            return rows.getString(1);
        }
    }
}
