package dev.tranche.app.storage;

import dev.tranche.core.units.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import org.springframework.stereotype.Component;
import org.springframework.util.unit.DataSize;

/** Keeps the files people give, each under the hash of its content, never under a name they choose. */
@Component
public class FileStore {
    private final Path folder;

    public FileStore(TrancheProperties properties) throws IOException {
        folder = Files.createDirectories(properties.data().resolve("files"));
    }

    /**
     * A file that is kept.
     *
     * @param hash SHA-256 of its bytes, in hex
     * @param size bytes
     */
    public record Kept(String hash, long size) {}

    /** Keeps all of {@code in}; it is on disk when this returns. */
    public Kept keep(InputStream in, DataSize largest) throws IOException {
        Path part = Files.createTempFile(folder, "coming-", ".part");
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            try (OutputStream out = Files.newOutputStream(part)) {
                long size = copy(new DigestInputStream(in, digest), out, largest);
                out.flush();
                sync(part);
                String hash = HexFormat.of().formatHex(digest.digest());
                Files.move(part, path(hash), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
                return new Kept(hash, size);
            }
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        } finally {
            Files.deleteIfExists(part);
        }
    }

    private static long copy(InputStream in, OutputStream out, DataSize largest) throws IOException {
        byte[] chunk = new byte[1 << 16];
        long size = 0;
        for (int read = in.read(chunk); read >= 0; read = in.read(chunk)) {
            size += read;
            if (size > largest.toBytes()) {
                throw tooLarge(largest);
            }
            out.write(chunk, 0, read);
        }
        return size;
    }

    /** The refusal of a file above the limit. */
    public static Refusal tooLarge(DataSize largest) {
        return Refusal.of(
                "The file is larger than %d MB, the most that is taken here; simplify it or raise the limit in the settings.",
                Math.max(1, largest.toMegabytes()));
    }

    private static void sync(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
    }

    /** Removes a file, if it is there. */
    public void forget(String hash) {
        try {
            Files.deleteIfExists(path(hash));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public Path path(String hash) {
        if (!hash.matches("[0-9a-f]{64}")) {
            throw new IllegalArgumentException("not a hash: " + hash);
        }
        return folder.resolve(hash);
    }
}
