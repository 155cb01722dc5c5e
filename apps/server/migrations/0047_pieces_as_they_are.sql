-- Pieces of files are read once and dropped: to press them takes longer than to write them.
ALTER TABLE "batch_pieces" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;
