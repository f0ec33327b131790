namespace DeepBaize.Core.Tests;

/// <summary>How the code is written, as far as a formatter does not see to it.</summary>
public class SourceTests
{
    private const int LongestLine = 140;

    [Fact]
    public void No_line_is_longer_than_140_characters()
    {
        var tooLong =
            from file in SourceTree.CSharpFiles()
            from line in File.ReadLines(file).Select((text, i) => (text.Length, Number: i + 1))
            where line.Length > LongestLine
            select $"{file}:{line.Number} ({line.Length})";
        Assert.Empty(tooLong);
    }
}
