namespace DeepBaize.Core;

/// <summary>Collects everything that is wrong with an input, by field, so that all of it is reported at once.</summary>
/// <param name="path">Where the input stands in what was sent, such as <c>strike</c>; empty for the whole.</param>
public sealed class Checks(string path = "")
{
    private readonly List<InputError> _errors = [];

    /// <summary>Whether nothing has been wrong so far.</summary>
    public bool AreMet => _errors.Count == 0;

    /// <summary>A figure that must lie within a range; what is not a number never does.</summary>
    /// <param name="unit">As it is to be told behind the range, with its space: " m", "°".</param>
    public void Range(string field, double value, double min, double max, string unit = "")
    {
        if (!(value >= min && value <= max))
            _errors.Add(new(FieldOf(field), $"{value} is out of range.", $"{min:0.####} to {max:0.####}{unit}", "outOfRange"));
    }

    /// <summary>Anything else that must hold.</summary>
    /// <param name="field">Below the path; empty if it is about the path itself.</param>
    public void That(bool holds, string field, string message, string allowed)
    {
        if (!holds)
            _errors.Add(new(FieldOf(field), message, allowed));
    }

    /// <summary>Adds errors that were found elsewhere.</summary>
    public void AddRange(IEnumerable<InputError> errors) => _errors.AddRange(errors);

    /// <exception cref="InputException">Something was wrong.</exception>
    public void ThrowIfAny() => InputException.ThrowIfAny(_errors);

    private string FieldOf(string field) =>
        path == "" ? field
        : field == "" ? path
        : field[0] == '[' ? path + field
        : $"{path}.{field}";
}
