package dev.tranche.app.storage;

import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
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
import java.time.Instant;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.springframework.util.unit.DataSize;

/** Keeps the files people give, each under the hash of its content, never under a name they choose. */
@Component
public class FileStore {
    private static final String PART = ".part";
    private static final Pattern HASH = Pattern.compile("[0-9a-f]{64}");

    private final Path folder;
    private final TrancheProperties properties;
    private final Room room;
    /** How often each file was given since the start. */
    private final Map<String, Integer> given = new HashMap<>();

    private final ThreadLocal<Loan> loan = new ThreadLocal<>();

    public FileStore(TrancheProperties properties, Room room) throws IOException {
        this.properties = properties;
        this.room = room;
        folder = Files.createDirectories(properties.data().resolve("files"));
    }

    /**
     * A file that is kept.
     *
     * @param hash SHA-256 of its bytes, in hex
     * @param size bytes
     * @param fresh whether it was not here before
     * @param times how often it had been given by then
     */
    public record Kept(String hash, long size, boolean fresh, int times) {}

    /** Keeps all of {@code in}; it is on disk when this returns. */
    public Kept keep(InputStream in, DataSize largest) throws IOException {
        Path part = Files.createTempFile(folder, "coming-", PART);
        try {
            MessageDigest digest = digest();
            // Whoever sends without telling how much it is, is asked now and then.
            try (OutputStream out = new Watched(Files.newOutputStream(part), room, Progress.UNHEARD)) {
                long most = properties.largestTotal().toBytes() - total();
                long size = copy(new DigestInputStream(in, digest), out, largest, most);
                out.flush();
                sync(part);
                String hash = HexFormat.of().formatHex(digest.digest());
                return settle(part, hash, size);
            }
        } finally {
            Files.deleteIfExists(part);
        }
    }

    /** SHA-256 of all of {@code in}, in hex: what it would be kept under. */
    public static String hash(InputStream in) throws IOException {
        MessageDigest digest = digest();
        new DigestInputStream(in, digest).transferTo(OutputStream.nullOutputStream());
        return HexFormat.of().formatHex(digest.digest());
    }

    private static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private synchronized Kept settle(Path part, String hash, long size) throws IOException {
        boolean isNew = Files.notExists(path(hash));
        Files.move(part, path(hash), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        int times = given.merge(hash, 1, Integer::sum);
        Loan open = loan.get();
        if (open != null) {
            open.hear(hash, isNew, times);
        }
        return new Kept(hash, size, isNew, times);
    }

    /** Removes what was of no use, unless it was here before or somebody else gave it meanwhile. */
    public synchronized void takeBack(Kept kept) {
        if (kept.fresh() && given.get(kept.hash()).equals(kept.times())) {
            forget(kept.hash());
        }
    }

    /** Hashes of all files that are here now. */
    public List<String> hashes() throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.map(file -> file.getFileName().toString())
                    .filter(name -> HASH.matcher(name).matches())
                    .sorted()
                    .toList();
        }
    }

    /** Bytes of all that is kept. */
    public long total() throws IOException {
        long sum = 0;
        try (Stream<Path> all = Files.list(folder)) {
            for (Path file : all.toList()) {
                sum += Files.exists(file) ? Files.size(file) : 0;
            }
        }
        return sum;
    }

    /** What this thread gives from here on is taken back when the loan is closed, unless it is to stay. */
    public Loan lend() {
        Loan open = new Loan();
        loan.set(open);
        return open;
    }

    /** Files for a while. What was here before, or was given by somebody else meanwhile, is nobody's to take back. */
    public final class Loan implements AutoCloseable {
        /** By hash, how often it had been given when this loan gave it last. */
        private final Map<String, Integer> own = new HashMap<>();

        private Loan() {}

        private void hear(String hash, boolean isNew, int times) {
            own.computeIfPresent(hash, (h, before) -> times == before + 1 ? times : before);
            if (isNew) {
                own.put(hash, times);
            }
        }

        /** All of it stays. */
        public void keep() {
            own.clear();
        }

        @Override
        public void close() {
            loan.remove();
            synchronized (FileStore.this) {
                own.forEach((hash, times) -> {
                    if (given.get(hash).equals(times)) {
                        forget(hash);
                    }
                });
            }
        }
    }

    /** Removes what nobody gave since {@code then} and nobody holds, and what came in only halfway. */
    public void sweep(Instant then, Predicate<String> held) throws IOException {
        List<Path> all;
        try (Stream<Path> files = Files.list(folder)) {
            all = files.toList();
        }
        for (Path file : all) {
            String name = file.getFileName().toString();
            boolean ours = HASH.matcher(name).matches() || name.endsWith(PART);
            if (ours && givenBefore(file, then) && !held.test(name)) {
                synchronized (this) {
                    // It may have been given again while its holders were asked for.
                    if (givenBefore(file, then)) {
                        Files.delete(file);
                    }
                }
            }
        }
    }

    private static boolean givenBefore(Path file, Instant then) throws IOException {
        return Files.exists(file) && Files.getLastModifiedTime(file).toInstant().isBefore(then);
    }

    private long copy(InputStream in, OutputStream out, DataSize largest, long most) throws IOException {
        byte[] chunk = new byte[1 << 16];
        long size = 0;
        for (int read = in.read(chunk); read >= 0; read = in.read(chunk)) {
            size += read;
            if (size > largest.toBytes()) {
                throw tooLarge(largest);
            }
            if (size > most) {
                throw Refusal.of(
                        "All files together would take over %d MB, the most that Tranche keeps; delete plans you no longer need, or raise tranche.largest-total.",
                        properties.largestTotal().toMegabytes());
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
    private void forget(String hash) {
        try {
            Files.deleteIfExists(path(hash));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public Path path(String hash) {
        if (!HASH.matcher(hash).matches()) {
            throw new IllegalArgumentException("not a hash: " + hash);
        }
        return folder.resolve(hash);
    }
}
