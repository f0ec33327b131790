namespace DeepBaize.Core.Search;

/// <summary>A stage of a search, for whoever waits for it.</summary>
/// <param name="Name">What is done in it.</param>
/// <param name="Until">Share of the whole work that is done when the stage ends, 0–1; of the last stage 1.</param>
public readonly record struct SearchStage(string Name, double Until);
