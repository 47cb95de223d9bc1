package dev.tranche.app.storage;

import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * What was read of the database last, until something is written. A transaction that writes reads for itself, and
 * nobody else sees what it has not committed.
 */
public final class LastRead<T> {
    private final AtomicLong changes = new AtomicLong();
    private volatile T value;

    public T get(Supplier<T> read) {
        if (TransactionSynchronizationManager.isActualTransactionActive()
                && !TransactionSynchronizationManager.isCurrentTransactionReadOnly()) {
            return read.get();
        }
        T known = value;
        if (known == null) {
            long before = changes.get();
            known = read.get();
            value = known;
            if (changes.get() != before) {
                value = null;
            }
        }
        return known;
    }

    /** Something is being written: what was read counts no more, now and when the transaction is over. */
    public void changed() {
        forget();
        if (TransactionSynchronizationManager.isSynchronizationActive()) {
            TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
                @Override
                public void afterCompletion(int status) {
                    forget();
                }
            });
        }
    }

    private void forget() {
        changes.incrementAndGet();
        value = null;
    }
}
