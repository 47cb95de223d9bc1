package dev.tranche.app.api;

import dev.tranche.app.handoff.GcodeFiles;
import dev.tranche.core.check.Finding;
import java.util.List;

/** A file is not written, since plan and file contradict each other. */
final class NotReady extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final transient List<Finding> findings;

    /** @param findings that forbid it, worst first; not empty */
    NotReady(List<Finding> findings) {
        super(GcodeFiles.notWritten(findings), null, false, true);
        this.findings = List.copyOf(findings);
    }

    List<Finding> findings() {
        return findings;
    }
}
