/**
 * Gauss–Jordan elimination with partial pivoting, in place: the left square part becomes the identity and the right
 * columns hold the solutions.
 * @param matrix row by row
 * @param count number of rows, and of columns in the left part
 * @param width number of columns in a row
 */
export function gaussJordan(matrix: Float64Array, count: number, width: number): void {
  for (let column = 0; column < count; column++) {
    let best = column;
    for (let row = column + 1; row < count; row++) {
      if (
        Math.abs(matrix[row * width + column] as number) > Math.abs(matrix[best * width + column] as number)
      )
        best = row;
    }
    if (best !== column) {
      for (let j = column; j < width; j++) {
        const kept = matrix[column * width + j] as number;
        matrix[column * width + j] = matrix[best * width + j] as number;
        matrix[best * width + j] = kept;
      }
    }
    const pivot = 1 / (matrix[column * width + column] as number);
    for (let j = column; j < width; j++)
      matrix[column * width + j] = (matrix[column * width + j] as number) * pivot;
    for (let row = 0; row < count; row++) {
      const factor = matrix[row * width + column] as number;
      if (row === column || factor === 0) continue;
      for (let j = column; j < width; j++)
        matrix[row * width + j] =
          (matrix[row * width + j] as number) - factor * (matrix[column * width + j] as number);
    }
  }
}
