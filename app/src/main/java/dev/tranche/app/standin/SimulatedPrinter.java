package dev.tranche.app.standin;

import dev.tranche.app.storage.Json;
import dev.tranche.app.stored.StoredRig;
import dev.tranche.core.machine.Printer;
import dev.tranche.core.rehearse.StandIn;
import dev.tranche.core.rehearse.StandInAtWire;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;

/**
 * A printer that is only simulated, for one print. On its standard input it is told in two lines how many filaments there are
 * and which is loaded, and which printer it is; it answers with the ports of its wire and of its hands, and ends when either
 * side of the wire, or its standard input, is closed.
 */
public final class SimulatedPrinter {
    private SimulatedPrinter() {}

    /** What it is. */
    record Setting(int filaments, int first, StoredRig rig) {}

    public static void main(String[] arguments) throws IOException, InterruptedException {
        BufferedReader told = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        Setting setting = new Json().read(told.readLine(), Setting.class);
        Printer printer = setting.rig().rig().printer();
        StandIn standIn = new StandIn(printer, setting.filaments(), setting.first());
        InetAddress here = InetAddress.getLoopbackAddress();
        try (ServerSocket wires = new ServerSocket(0, 1, here);
                ServerSocket hands = new ServerSocket(0, 1, here)) {
            System.out.println(wires.getLocalPort() + " " + hands.getLocalPort());
            background(() -> {
                while (told.readLine() != null) {
                    // Whoever started it lives.
                }
                System.exit(0);
            });
            try (Socket wire = wires.accept();
                    Socket hand = hands.accept()) {
                wire.setTcpNoDelay(true);
                hand.setTcpNoDelay(true);
                StandInAtWire atWire = new StandInAtWire(standIn, wire.getInputStream(), wire.getOutputStream());
                background(() -> serve(hand, atWire));
                atWire.run();
                wire.shutdownOutput();
                // Hands may still ask how long it took.
                Thread.sleep(LAST_QUESTIONS);
            }
        }
        System.exit(0);
    }

    private static final long LAST_QUESTIONS = 10_000;

    private interface Work {
        void run() throws IOException;
    }

    private static void background(Work work) {
        Thread thread = new Thread(() -> {
            try {
                work.run();
            } catch (IOException gone) {
                System.exit(0);
            }
        });
        thread.setDaemon(true);
        thread.start();
    }

    /** One line asks, one line answers. */
    private static void serve(Socket hand, StandInAtWire printer) throws IOException {
        BufferedReader asked = new BufferedReader(new InputStreamReader(hand.getInputStream(), StandardCharsets.UTF_8));
        OutputStream answers = hand.getOutputStream();
        for (String line = asked.readLine(); line != null; line = asked.readLine()) {
            answers.write((printer.hand(line) + "\n").getBytes(StandardCharsets.UTF_8));
            answers.flush();
        }
        System.exit(0);
    }
}
