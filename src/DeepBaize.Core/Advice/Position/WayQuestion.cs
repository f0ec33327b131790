using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Position;

/// <summary>What is asked of a search for ways.</summary>
/// <param name="Stroke">As it is set up: of it the butt's elevation is kept.</param>
public sealed record WayQuestion(Layout Layout, Pot Pot, Goal Goal, Stroke Stroke, Player Player, TableShape Shape);
