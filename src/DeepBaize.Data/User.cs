namespace DeepBaize.Data;

/// <summary>Who owns rows. Until there are accounts, the application runs as one local user.</summary>
public sealed class User : IVersioned
{
    /// <summary>The local user's.</summary>
    public static readonly Guid LocalId = new("0196b0a0-0000-7000-8000-000000000001");

    public required Guid Id { get; init; }
    public required string Name { get; set; }
    public required DateTimeOffset CreatedAt { get; init; }
    public uint Version { get; init; }

    /// <summary>Who plays, on which table and with which cue: what is in hand. Null only until the first of a kind is there.</summary>
    public Guid? PlayerId { get; set; }

    /// <inheritdoc cref="PlayerId"/>
    public Guid? TableId { get; set; }

    /// <inheritdoc cref="PlayerId"/>
    public Guid? CueId { get; set; }
}
