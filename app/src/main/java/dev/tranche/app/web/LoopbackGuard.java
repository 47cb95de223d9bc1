package dev.tranche.app.web;

import dev.tranche.app.storage.TrancheProperties;
import org.springframework.boot.autoconfigure.web.ServerProperties;
import org.springframework.stereotype.Component;

/** Refuses to start on an address that others can reach, unless a password is set. */
@Component
class LoopbackGuard {
    LoopbackGuard(ServerProperties server, TrancheProperties tranche) {
        boolean loopback = server.getAddress() != null && server.getAddress().isLoopbackAddress();
        if (!loopback && tranche.password().isEmpty()) {
            throw new IllegalStateException(
                    "Tranche was told to listen where other machines can reach it, without a password. "
                            + "Set tranche.password, or leave server.address at 127.0.0.1.");
        }
    }
}
