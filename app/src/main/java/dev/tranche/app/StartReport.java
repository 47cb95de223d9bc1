package dev.tranche.app;

import dev.tranche.app.storage.DataFolder;
import org.springframework.boot.SpringBootExceptionReporter;
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
        }
        return false;
    }
}
