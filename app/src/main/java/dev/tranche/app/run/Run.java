package dev.tranche.app.run;

import dev.tranche.app.handoff.GcodeFiles;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.standin.PrinterProcess;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.gcode.Controller;
import dev.tranche.core.gcode.SlicedFile;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rehearse.Deed;
import dev.tranche.core.rehearse.Encounter;
import dev.tranche.core.rehearse.Rehearsal;
import dev.tranche.core.rehearse.Report;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** One rehearsal: how far it is, what it waits for, and how it ended. */
final class Run {
    private static final Logger LOG = LoggerFactory.getLogger(Run.class);
    /** Nobody who has gone away is waited for, ms. */
    private static final long PATIENCE = 12 * 3_600_000L;

    /** What it is of: what has changed since makes its report one of another plan. */
    record Subject(
            String name, PlanContent content, Map<SpoolId, Spool> shelf, Rig rig, Optional<PlanState.Gcode> gcode) {
        static Subject of(Workpiece work) {
            return new Subject(
                    work.plan().name(),
                    work.plan().content(),
                    work.shelf(),
                    work.machine().rig(),
                    work.plan().gcode());
        }
    }

    private final Subject subject;
    /** As large as its model; gone when it is over. */
    private Workpiece work;

    private final Setup setup;
    private final List<SpoolId> filaments;
    private PrinterProcess printer;
    private Encounter stop;
    private Deed deed;
    private Report report;
    private String failure;
    private boolean cancelled;
    private boolean honest;
    private volatile boolean held;
    private volatile double pace;
    private volatile int reached;
    private volatile Optional<String> atTheEnd = Optional.empty();

    Run(Workpiece work, Setup setup) {
        this.work = work;
        this.subject = Subject.of(work);
        this.setup = setup;
        this.pace = setup.pace();
        this.honest = setup.isHonest();
        this.filaments = filaments(work);
    }

    Subject subject() {
        return subject;
    }

    /** The spools of a plan, the numbers by which the machine knows them. */
    static List<SpoolId> filaments(Workpiece work) {
        return work.ledger().uses().stream().map(u -> u.spool().id()).toList();
    }

    /**
     * Does it.
     *
     * @param download the file that is handed off
     * @param temporary where that lies while it is read
     * @param keeper is given what it tells of the plan before anybody sees that it is over; nothing where somebody let something go
     *     wrong
     */
    void go(GcodeFiles.Download download, TemporaryFiles temporary, Consumer<Report> keeper) {
        Path file = null;
        try {
            long size = work.file().map(SlicedFile::size).orElse(0L);
            file = temporary.file("rehearsal", size);
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 16)) {
                download.writeTo(out);
            }
            Report came = rehearse(file);
            keep(came, keeper);
            synchronized (this) {
                report = came;
            }
        } catch (Refusal e) {
            fail(isCancelled() ? "Stopped." : e.getMessage());
        } catch (CancellationException e) {
            fail("Stopped.");
        } catch (IOException e) {
            fail(isCancelled() ? "Stopped." : "The simulated printer is gone; start the rehearsal again.");
        } catch (RuntimeException | Error e) {
            LOG.error("Rehearsal failed", e);
            fail("Something went wrong in Tranche itself; nothing was changed. The log has the details.");
        } finally {
            work = null;
            delete(file);
        }
    }

    /** A report that cannot be kept is a report all the same. */
    private void keep(Report came, Consumer<Report> keeper) {
        try {
            if (isHonest()) {
                keeper.accept(came);
            }
        } catch (RuntimeException e) {
            LOG.error("How a rehearsal ended could not be kept", e);
        }
    }

    private synchronized boolean isHonest() {
        return honest;
    }

    private static void delete(Path file) {
        try {
            if (file != null) {
                Files.deleteIfExists(file);
            }
        } catch (IOException left) {
            LOG.warn("A temporary file stays behind", left);
        }
    }

    private Report rehearse(Path file) throws IOException {
        int first = Rehearsal.first(work.reckoning().facts(), filaments);
        try (PrinterProcess process = PrinterProcess.start(work.machine().rig(), filaments.size(), first);
                InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
            synchronized (this) {
                printer = process;
                if (cancelled) {
                    throw new CancellationException();
                }
            }
            for (String fault : setup.faults()) {
                process.hand(fault);
            }
            process.hand("pace " + setup.pace());
            Report came = new Rehearsal(
                            work.reckoning().facts(),
                            filaments,
                            work.plan().content().purge().tolerance(),
                            process,
                            this::met,
                            watcher)
                    .run(in);
            atTheEnd = where();
            reached = came.highest();
            return came;
        } finally {
            synchronized (this) {
                printer = null;
            }
        }
    }

    /** Keeps how high it has come; the rest is asked of the printer by who looks on. */
    private final Rehearsal.Watcher watcher = new Rehearsal.Watcher() {
        @Override
        public void at(long bytes, String line, int layer, Controller at) {
            reached = layer > 0 ? layer : reached;
        }

        @Override
        public void meets(Encounter stop) {
            reached = stop.what().isPresent() ? stop.layer() - 1 : reached;
        }
    };

    /** The layer that was printed last; 0 before the first. */
    int reached() {
        return reached;
    }

    private synchronized Deed met(Encounter met) {
        if (!setup.asks()) {
            return setup.deed(met);
        }
        stop = met;
        deed = null;
        notifyAll();
        long until = System.currentTimeMillis() + PATIENCE;
        while (deed == null && !cancelled) {
            long left = until - System.currentTimeMillis();
            if (left <= 0) {
                throw new Refusal("Nobody came for twelve hours, so the rehearsal was stopped.");
            }
            try {
                wait(left);
            } catch (InterruptedException e) {
                throw new CancellationException();
            }
        }
        if (cancelled) {
            throw new CancellationException();
        }
        return deed;
    }

    /** Somebody does something at the stop it waits at. */
    synchronized void does(Deed done) {
        if (stop == null) {
            throw new Refusal("The rehearsal does not wait for anybody any more; look at how far it is.");
        }
        if (done.puts().filter(s -> !filaments.contains(s)).isPresent()) {
            throw new Refusal("That spool is not in this plan; choose one that is.");
        }
        boolean pushed = done.pushes() || stop.wanted().isEmpty();
        honest &= done.puts().equals(stop.wanted()) && done.late().isZero() && pushed;
        deed = done;
        stop = null;
        notifyAll();
    }

    synchronized void cancel() {
        cancelled = true;
        if (printer != null) {
            printer.close();
        }
        notifyAll();
    }

    private synchronized boolean isCancelled() {
        return cancelled;
    }

    private synchronized void fail(String sentence) {
        failure = sentence;
    }

    /** Tells the machine; nothing where there is none any more. */
    private void tell(String does) {
        PrinterProcess process;
        synchronized (this) {
            process = printer;
        }
        if (process != null) {
            try {
                process.hand(does);
            } catch (IOException gone) {
                // It ends by itself.
            }
        }
    }

    void pace(double other) {
        pace = new Setup(other, false, setup.puts(), setup.late(), List.of()).pace();
        tell("pace " + pace);
    }

    double pace() {
        return pace;
    }

    /** {@code hold}, {@code go-on}, {@code step} by one line, or {@code stop} it for good. */
    void control(String what) {
        switch (what) {
            case "stop" -> {
                atTheEnd = where();
                cancel();
            }
            case "go-on" -> {
                held = false;
                tell("go-on");
            }
            default -> {
                held = true;
                tell("step".equals(what) ? "step 1" : "hold");
            }
        }
    }

    /** In a word: running, held, waiting or over. */
    synchronized String state() {
        return isOver() ? "over" : stop != null ? "waiting" : held ? "held" : "running";
    }

    synchronized Optional<Encounter> waitsAt() {
        return Optional.ofNullable(stop);
    }

    synchronized Optional<Report> report() {
        return Optional.ofNullable(report);
    }

    synchronized Optional<String> failure() {
        return Optional.ofNullable(failure);
    }

    synchronized boolean isOver() {
        return report != null || failure != null;
    }

    /** As the simulated printer answers {@code where}, or answered at its end; nothing where it never did. */
    Optional<String> where() {
        PrinterProcess process;
        synchronized (this) {
            process = printer;
        }
        if (process == null) {
            return atTheEnd;
        }
        try {
            return Optional.of(process.hand("where"));
        } catch (IOException gone) {
            return Optional.empty();
        }
    }
}
