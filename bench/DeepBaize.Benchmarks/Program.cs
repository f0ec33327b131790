using BenchmarkDotNet.Running;
using DeepBaize.Benchmarks;

BenchmarkSwitcher.FromAssembly(typeof(SimulatorBenchmarks).Assembly).Run(args);
