package dev.tranche.core.rehearse;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;

/** A stand-in at the other end of a socket in the same process. */
final class Loopback implements Device, AutoCloseable {
    private final Socket near;
    private final Socket far;
    private final StandInAtWire printer;

    Loopback(StandIn standIn) throws IOException {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            near = new Socket(server.getInetAddress(), server.getLocalPort());
            far = server.accept();
        }
        printer = new StandInAtWire(standIn, far.getInputStream(), far.getOutputStream());
        Thread thread = new Thread(() -> {
            try {
                printer.run();
                far.shutdownOutput();
            } catch (IOException | InterruptedException gone) {
                // The test has gone on.
            }
        });
        thread.setDaemon(true);
        thread.start();
    }

    @Override
    public OutputStream lines() {
        try {
            return near.getOutputStream();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public InputStream answers() {
        try {
            return near.getInputStream();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public String hand(String does) throws IOException {
        return printer.hand(does);
    }

    @Override
    public void close() throws IOException {
        near.close();
        far.close();
    }
}
