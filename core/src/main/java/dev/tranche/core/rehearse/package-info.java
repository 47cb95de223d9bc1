/**
 * A print rehearsed: a printer that is only simulated ({@link dev.tranche.core.rehearse.StandIn}) behind the line protocol that
 * real ones speak, a streamer that sends a file through it, hands that do what a person does at its stops, and a witness who
 * compares what comes out of the nozzle with what the plan wants there. Nothing here opens a socket; who runs it brings the
 * streams.
 */
package dev.tranche.core.rehearse;
