/**
 * Benchmarks of the hot paths, on the demo photos. Run one with
 * {@code mvn -q -pl bench -am package -DskipTests && java -cp "bench/target/classes:$(mvn -q -pl bench
 * dependency:build-classpath -Dmdep.outputFile=/dev/stdout)" org.openjdk.jmh.Main Lens}.
 */
@NullMarked
package app.yubble.bench;

import org.jspecify.annotations.NullMarked;
