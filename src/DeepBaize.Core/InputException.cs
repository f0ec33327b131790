namespace DeepBaize.Core;

/// <summary>One thing wrong with an input: which field, what is wrong, and what would be allowed.</summary>
/// <param name="Field">Path of the field as the API names it, such as <c>balls[3].x</c>.</param>
/// <param name="Message">What is wrong, in a sentence.</param>
/// <param name="Allowed">The allowed range or set, in words.</param>
/// <param name="Code">What kind of fault it is, for whoever words it anew: invalid, outOfRange, missing, wrongForm …</param>
public sealed record InputError(string Field, string Message, string Allowed, string Code = "invalid");

/// <summary>Thrown when an input cannot be accepted. Carries every error found, not only the first.</summary>
public sealed class InputException(IReadOnlyList<InputError> errors)
    : Exception(string.Join(" ", errors.Select(e => $"{e.Field}: {e.Message} Allowed: {e.Allowed}.")))
{
    /// <summary>Creates an exception with one error.</summary>
    public InputException(string field, string message, string allowed)
        : this([new(field, message, allowed)]) { }

    /// <summary>The errors, by field.</summary>
    public IReadOnlyList<InputError> Errors { get; } = errors;

    /// <summary>Throws if there is any error in the list.</summary>
    public static void ThrowIfAny(IReadOnlyList<InputError> errors)
    {
        if (errors.Count > 0)
            throw new InputException(errors);
    }
}
