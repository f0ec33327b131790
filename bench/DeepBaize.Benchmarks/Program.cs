using BenchmarkDotNet.Running;
using DeepBaize.Benchmarks;

// "breaks", "safety", "compare", "told", "strokes" and "physics" play and write the tables of docs/, run from the project's root;
// everything else is for BenchmarkDotNet.
if (args is ["breaks", .. var which])
    BreakQuality.Run("docs/planning.md", which);
else if (args is ["told", .. var row])
    ToldQuality.Run("docs/figures.md", string.Join(' ', row));
else if (args is ["errors"])
    ErrorQuality.Run("docs/figures.md");
else if (args is ["strokes", ..])
    StrokesNeeded.Run("docs/figures.md");
else if (args is ["physics", .. var strokes])
    PhysicsChecks.Run("docs/model.md", strokes is [var count] ? int.Parse(count) : 1_000_000);
else if (args is ["curves"])
    CurvesPage.Run("docs/curves.md", "docs/curves");
else if (args is ["quick"])
    QuickChances.Run("docs/planning.md");
else if (args is ["skills", .. var how])
    SkillFit.Run("docs/model.md", how);
else if (args is ["load", var address])
    await UnderLoad.RunAsync(address);
else if (args is ["runs", .. var runs])
    RunChecks.Run(runs);
else if (args is ["compare", .. var pairs])
    CompareQuality.Run("docs/compare.md", pairs is [_, var level] ? level : "county", pairs is [var of, ..] ? int.Parse(of) : 96);
else if (args is ["learning", .. var learnt])
    LearningQuality.Run("docs/learning.md", learnt);
else if (args is ["regret"])
    SafetyQuality.Regret("docs/safety.md");
else if (args is ["frames", .. var play])
    FrameQuality.Run("docs/safety.md", play);
else if (args is ["safety", ..])
    SafetyQuality.Run("docs/safety.md");
else
    BenchmarkSwitcher.FromAssembly(typeof(SimulatorBenchmarks).Assembly).Run(args);
