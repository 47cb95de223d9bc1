package dev.tranche.app.standin;

import dev.tranche.app.storage.Json;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.core.rehearse.Device;
import dev.tranche.core.rig.Rig;
import dev.tranche.core.speech.Refusal;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The other end of a {@link SimulatedPrinter}: the host's wire to it, and somebody's hands. */
public final class PrinterProcess implements Device, AutoCloseable {
    private static final String LAUNCHER = "org.springframework.boot.loader.launch.PropertiesLauncher";

    private final Process process;
    private final Socket wire;
    private final Socket hands;
    private final BufferedReader answered;

    private PrinterProcess(Process process, Socket wire, Socket hands) throws IOException {
        this.process = process;
        this.wire = wire;
        this.hands = hands;
        this.answered = new BufferedReader(new InputStreamReader(hands.getInputStream(), StandardCharsets.UTF_8));
    }

    /**
     * Starts one.
     *
     * @param filaments how many there are, and {@code first} the one that is loaded
     */
    public static PrinterProcess start(Rig rig, int filaments, int first) throws IOException {
        Process process = new ProcessBuilder(command())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        try {
            String setting = new Json().write(new SimulatedPrinter.Setting(filaments, first, StoredRig.of(rig))) + "\n";
            process.getOutputStream().write(setting.getBytes(StandardCharsets.UTF_8));
            process.getOutputStream().flush();
            String ports = new BufferedReader(
                            new InputStreamReader(process.getInputStream(), StandardCharsets.US_ASCII))
                    .readLine();
            if (ports == null) {
                throw new Refusal("The simulated printer did not start; is there memory for another program?");
            }
            String[] both = ports.split(" ");
            InetAddress here = InetAddress.getLoopbackAddress();
            Socket wire = new Socket(here, Integer.parseInt(both[0]));
            wire.setTcpNoDelay(true);
            Socket hands = new Socket(here, Integer.parseInt(both[1]));
            hands.setTcpNoDelay(true);
            return new PrinterProcess(process, wire, hands);
        } catch (IOException | RuntimeException e) {
            process.destroyForcibly();
            throw e;
        }
    }

    /** The same Java and the same classes, as they lie in folders, in a jar beside its libraries, or in one that holds them. */
    private static List<String> command() {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx256m",
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "-Xshare:auto",
                "-cp",
                System.getProperty("surefire.test.class.path", System.getProperty("java.class.path"))));
        String main = SimulatedPrinter.class.getName();
        boolean nested = String.valueOf(SimulatedPrinter.class.getResource("SimulatedPrinter.class"))
                .contains("BOOT-INF");
        if (nested) {
            command.add("-Dloader.main=" + main);
            main = LAUNCHER;
        }
        command.add(main);
        return command;
    }

    @Override
    public OutputStream lines() {
        try {
            return wire.getOutputStream();
        } catch (IOException e) {
            throw new Refusal("The simulated printer is gone; start the rehearsal again.");
        }
    }

    @Override
    public InputStream answers() {
        try {
            return wire.getInputStream();
        } catch (IOException e) {
            throw new Refusal("The simulated printer is gone; start the rehearsal again.");
        }
    }

    @Override
    public synchronized String hand(String does) throws IOException {
        hands.getOutputStream().write((does + "\n").getBytes(StandardCharsets.UTF_8));
        hands.getOutputStream().flush();
        String answer = answered.readLine();
        if (answer == null) {
            throw new IOException("the simulated printer is gone");
        }
        return answer;
    }

    @Override
    public void close() {
        process.destroyForcibly();
        for (Socket socket : List.of(wire, hands)) {
            try {
                socket.close();
            } catch (IOException gone) {
                // It went by itself.
            }
        }
    }
}
