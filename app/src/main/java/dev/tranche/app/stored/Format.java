package dev.tranche.app.stored;

import dev.tranche.app.storage.Json;
import dev.tranche.app.storage.Unreadable;
import dev.tranche.core.speech.Refusal;
import java.util.Set;
import java.util.function.Function;

/**
 * How a kind of value is stored.
 *
 * @param <T> the value
 * @param <S> the record it is stored as
 * @param version of the record; one that is higher than this Tranche knows is not read
 * @param files hashes of the files that a value needs
 */
public record Format<T, S>(
        Class<S> record, int version, Function<T, S> to, Function<S, T> from, Function<T, Set<String>> files) {

    public String write(T value, Json json) {
        return json.write(to.apply(value));
    }

    /**
     * @param written the version it was stored as
     * @throws Unreadable if it cannot be what it says
     */
    public T read(String text, int written, Json json) {
        if (written > version) {
            throw new Unreadable("It was stored by a newer Tranche; start that one to use it.", null);
        }
        S stored = json.read(text, record);
        try {
            return from.apply(stored);
        } catch (Refusal e) {
            throw new Unreadable(e.getMessage(), e);
        } catch (IllegalArgumentException | NullPointerException e) {
            throw Unreadable.since(String.valueOf(e.getMessage()), e);
        }
    }
}
