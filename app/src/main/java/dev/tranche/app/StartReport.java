package dev.tranche.app;

import dev.tranche.app.storage.DataFolder;
import dev.tranche.core.speech.Words;
import org.springframework.boot.SpringBootExceptionReporter;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.context.ConfigurableApplicationContext;

/** Says in one sentence why Tranche does not start, where that is nobody's fault but the surroundings'. */
class StartReport implements SpringBootExceptionReporter {
    StartReport(ConfigurableApplicationContext context) {}

    @Override
    public boolean reportException(Throwable failure) {
        for (Throwable at = failure; at != null; at = at.getCause()) {
            if (at instanceof DataFolder.CannotStart) {
                System.err.println(at.getMessage());
                return true;
            }
            if (at instanceof PortInUseException taken) {
                System.err.println(Words.format(
                        "Another program answers at port %d already; stop it, or choose another port: PORT=%d ./tranche …",
                        taken.getPort(), taken.getPort() + 1));
                return true;
            }
        }
        return false;
    }
}
