using BenchmarkDotNet.Running;
using DeepBaize.Benchmarks;

// "breaks" plays breaks and writes docs/planning.md, run from the project's root; everything else is for BenchmarkDotNet.
if (args is ["breaks", ..]) BreakQuality.Run("docs/planning.md");
else BenchmarkSwitcher.FromAssembly(typeof(SimulatorBenchmarks).Assembly).Run(args);
