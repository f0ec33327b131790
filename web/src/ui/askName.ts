/** Asks for a name; null if it was not meant. */
export async function askName(title: string, name: string, placeholder: string, most = 120): Promise<string | null> {
  try {
    const { ElMessageBox } = await import('./messageBox')
    const { value } = await ElMessageBox.prompt('', title, {
      inputValue: name,
      inputPlaceholder: placeholder,
      inputValidator: (text: string) =>
        text?.trim() ? (text.trim().length <= most ? true : `At most ${most} characters.`) : 'A name is needed.',
      confirmButtonText: title,
      cancelButtonText: 'Cancel',
    })
    return value.trim()
  } catch {
    return null
  }
}
