package dev.tranche.app.plans;

/** A model file of a plan, kept under the hash of its content. */
public record ModelFile(String hash, String name, long size) {}
