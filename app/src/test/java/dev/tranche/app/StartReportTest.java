package dev.tranche.app;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.context.ApplicationContextException;

@ExtendWith(OutputCaptureExtension.class)
class StartReportTest {
    private final StartReport report = new StartReport(null);

    @Test
    void a_port_that_is_taken_is_one_sentence_with_the_next_one(CapturedOutput said) {
        assertThat(report.reportException(new ApplicationContextException("start", new PortInUseException(8080))))
                .isTrue();
        assertThat(said.getErr().lines())
                .singleElement()
                .asString()
                .contains("port 8080")
                .contains("PORT=8081");
    }

    @Test
    void what_it_knows_nothing_of_is_left_to_others(CapturedOutput said) {
        assertThat(report.reportException(new IllegalStateException("something else")))
                .isFalse();
        assertThat(said.getErr()).isEmpty();
    }
}
