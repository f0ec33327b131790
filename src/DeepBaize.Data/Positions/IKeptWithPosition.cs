namespace DeepBaize.Data.Positions;

/// <summary>What is kept with a position, and goes with it: shots, plans.</summary>
public interface IKeptWithPosition : IVersioned
{
    Guid OwnerId { get; }
    Guid PositionId { get; }
    DateTimeOffset CreatedAt { get; }
}
