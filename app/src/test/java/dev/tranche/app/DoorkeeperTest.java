package dev.tranche.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.SocketException;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import org.apache.catalina.connector.Connector;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.web.embedded.tomcat.TomcatServletWebServerFactory;
import org.springframework.boot.web.embedded.tomcat.TomcatWebServer;
import org.springframework.test.util.TestSocketUtils;

class DoorkeeperTest {
    private final int port = TestSocketUtils.findAvailableTcpPort();
    private final TomcatWebServer server = (TomcatWebServer) new TomcatServletWebServerFactory(port).getWebServer();
    private Connector door;

    @BeforeEach
    void open() {
        server.start();
        door = server.getTomcat().getConnector();
    }

    @AfterEach
    void close() {
        server.destroy();
    }

    @Test
    void requests_are_let_in_again_when_what_let_them_in_has_died_of_want_of_memory() throws Exception {
        door.stop();
        assertThat(answers()).isFalse();

        new Doorkeeper(door)
                .uncaughtException(
                        new Thread("http-nio-127.0.0.1-8080-Poller"), new OutOfMemoryError("Java heap space"));

        assertThat(answers()).isTrue();
    }

    @Test
    void any_other_thread_that_dies_leaves_the_door_alone() throws Exception {
        door.stop();
        new Doorkeeper(door).uncaughtException(new Thread("work"), new IllegalStateException("its own"));
        assertThat(answers()).isFalse();
    }

    private boolean answers() throws IOException {
        try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port)) {
            socket.setSoTimeout(2000);
            socket.getOutputStream()
                    .write("GET / HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n"
                            .getBytes(StandardCharsets.US_ASCII));
            return socket.getInputStream().read() == 'H';
        } catch (SocketException | SocketTimeoutException nobody) {
            return false;
        }
    }
}
