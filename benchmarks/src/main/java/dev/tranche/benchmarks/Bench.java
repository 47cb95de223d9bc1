package dev.tranche.benchmarks;

public final class Bench {
    private Bench() {}

    public static void main(String[] args) {}
}
