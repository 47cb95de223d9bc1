package dev.tranche.app.storage;

import com.zaxxer.hikari.HikariDataSource;
import com.zaxxer.hikari.HikariPoolMXBean;
import javax.sql.DataSource;
import org.springframework.stereotype.Component;

/** Connections to the database. One that closed itself, as on a full disk, is opened anew by new ones. */
@Component
public class Connections {
    private final DataSource source;

    Connections(DataSource source) {
        this.source = source;
    }

    /** Drops what connections there are, so that the next request begins with a new one. */
    public void reconnect() {
        if (source instanceof HikariDataSource pool) {
            HikariPoolMXBean control = pool.getHikariPoolMXBean();
            if (control != null) {
                control.softEvictConnections();
            }
        }
    }
}
