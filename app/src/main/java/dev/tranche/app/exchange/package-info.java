/** What comes in and goes out whole: model files that begin a plan, and plan files. */
package dev.tranche.app.exchange;
